package rovnik.server.analyzer;

import java.util.List;
import org.apache.ibatis.annotations.Delete;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Options;
import org.apache.ibatis.annotations.Param;
import org.apache.ibatis.annotations.Select;
import org.apache.ibatis.annotations.Update;

/** Table calibration. */
@Mapper
interface CalibrationMapper {
  record Row(
      long id,
      String name,
      String identity,
      String method,
      String kit,
      long madeAtMillis,
      String sweepJson,
      int points,
      Double verified,
      long crc32,
      byte[] termsDeflated) {}

  /** Carries the generated id out of an insert. */
  final class NewRow {
    Long id;
    final Row row;

    NewRow(Row row) {
      this.row = row;
    }
  }

  String SELECT =
      "select id, name, identity, method, kit, made_at_millis, sweep_json, points, verified, crc32,"
          + " terms_deflated from calibration";

  @Select(SELECT + " order by id desc")
  List<Row> all();

  @Select(SELECT + " where id = #{id}")
  Row find(long id);

  @Insert(
      "insert into calibration (name, identity, method, kit, made_at_millis, sweep_json, points,"
          + " crc32, terms_deflated) values (#{row.name}, #{row.identity}, #{row.method},"
          + " #{row.kit}, #{row.madeAtMillis}, #{row.sweepJson}, #{row.points}, #{row.crc32},"
          + " #{row.termsDeflated})")
  @Options(useGeneratedKeys = true, keyProperty = "id", keyColumn = "id")
  void insert(NewRow row);

  @Update("update calibration set verified = #{worst} where id = #{id}")
  void verified(@Param("id") long id, @Param("worst") double worst);

  @Delete("delete from calibration where id = #{id}")
  int delete(long id);
}
