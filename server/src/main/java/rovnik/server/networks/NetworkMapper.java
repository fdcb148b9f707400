package rovnik.server.networks;

import java.util.List;
import org.apache.ibatis.annotations.Delete;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Options;
import org.apache.ibatis.annotations.Select;

/** Table network. */
@Mapper
interface NetworkMapper {
  record NetworkRow(
      long id,
      String name,
      int ports,
      int points,
      double startHz,
      double stopHz,
      String version,
      String comments,
      String fileName) {}

  /** Carries the generated id out of an insert. */
  final class NewNetwork {
    Long id;
    final NetworkRow row;

    NewNetwork(NetworkRow row) {
      this.row = row;
    }
  }

  String COLUMNS = "id, name, ports, points, start_hz, stop_hz, version, comments, file_name";

  @Select("select " + COLUMNS + " from network order by id desc")
  List<NetworkRow> all();

  @Select("select " + COLUMNS + " from network where id = #{id}")
  NetworkRow find(long id);

  @Insert(
      "insert into network (name, ports, points, start_hz, stop_hz, version, comments, file_name,"
          + " opened_at) values (#{row.name}, #{row.ports}, #{row.points}, #{row.startHz},"
          + " #{row.stopHz}, #{row.version}, #{row.comments}, #{row.fileName}, current_timestamp)")
  @Options(useGeneratedKeys = true, keyProperty = "id", keyColumn = "id")
  void insert(NewNetwork network);

  @Select("select count(*) from path_element where network_id = #{id}")
  int usesOf(long id);

  @Select("select count(*) from run where network_id = #{id}")
  int runsOf(long id);

  @Delete("delete from network where id = #{id}")
  void delete(long id);
}
