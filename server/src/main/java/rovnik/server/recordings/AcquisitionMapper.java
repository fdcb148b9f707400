package rovnik.server.recordings;

import java.util.List;
import org.apache.ibatis.annotations.Delete;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Options;
import org.apache.ibatis.annotations.Param;
import org.apache.ibatis.annotations.Select;
import org.apache.ibatis.annotations.Update;

/** Table acquisition. */
@Mapper
interface AcquisitionMapper {
  record AcquisitionRow(
      long id,
      String name,
      String origin,
      String datatype,
      double sampleRateHz,
      double centreHz,
      Double fullScaleDbm,
      long samples,
      boolean overload,
      String description,
      String recordedAt,
      String hardware,
      String fileName,
      String sha256,
      Double levelAccuracyDb,
      Double frequencyAccuracy,
      Double linearityDb,
      Double errorFloorDb) {}

  /** Carries the generated id out of an insert. */
  final class NewAcquisition {
    Long id;
    final AcquisitionRow row;

    NewAcquisition(AcquisitionRow row) {
      this.row = row;
    }
  }

  String COLUMNS =
      "id, name, origin, datatype, sample_rate_hz, centre_hz, full_scale_dbm, samples, overload,"
          + " description, recorded_at, hardware, file_name, sha256, level_accuracy_db, frequency_accuracy,"
          + " linearity_db, error_floor_db";

  @Select("select " + COLUMNS + " from acquisition where origin = #{origin} order by id desc")
  List<AcquisitionRow> ofOrigin(String origin);

  @Select("select file_name from acquisition")
  List<String> fileNames();

  @Select("select " + COLUMNS + " from acquisition where id = #{id}")
  AcquisitionRow find(long id);

  @Insert(
      "insert into acquisition (name, origin, datatype, sample_rate_hz, centre_hz, full_scale_dbm,"
          + " samples, overload, description, recorded_at, hardware, file_name, sha256, level_accuracy_db,"
          + " frequency_accuracy, linearity_db, error_floor_db) values"
          + " (#{row.name}, #{row.origin}, #{row.datatype}, #{row.sampleRateHz}, #{row.centreHz},"
          + " #{row.fullScaleDbm}, #{row.samples}, #{row.overload}, #{row.description},"
          + " #{row.recordedAt}, #{row.hardware}, #{row.fileName}, #{row.sha256},"
          + " #{row.levelAccuracyDb}, #{row.frequencyAccuracy}, #{row.linearityDb},"
          + " #{row.errorFloorDb})")
  @Options(useGeneratedKeys = true, keyProperty = "id", keyColumn = "id")
  void insert(NewAcquisition acquisition);

  @Update(
      "update acquisition set full_scale_dbm = #{level}, level_accuracy_db = #{accuracy} where id ="
          + " #{id}")
  void calibrate(
      @Param("id") long id,
      @Param("level") Double fullScaleDbm,
      @Param("accuracy") Double levelAccuracyDb);

  @Select("select count(*) from run where acquisition_id = #{id}")
  int runsOf(long id);

  @Delete("delete from acquisition where id = #{id}")
  void delete(long id);
}
