package rovnik.server.bench;

import java.util.List;
import org.apache.ibatis.annotations.Delete;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Options;
import org.apache.ibatis.annotations.Param;
import org.apache.ibatis.annotations.Select;
import org.apache.ibatis.annotations.Update;
import rovnik.instruments.InstrumentKind;

/** Table instrument. */
@Mapper
interface InstrumentMapper {
  record InstrumentRow(
      long id,
      String name,
      InstrumentKind kind,
      String host,
      int port,
      String dialect,
      boolean wanted) {}

  /** Carries the generated id out of an insert. */
  final class NewInstrument {
    Long id;
    final InstrumentRow row;

    NewInstrument(InstrumentRow row) {
      this.row = row;
    }
  }

  @Select("select id, name, kind, host, port, dialect, wanted from instrument order by id")
  List<InstrumentRow> all();

  @Insert(
      "insert into instrument (name, kind, host, port, dialect, wanted) values (#{row.name},"
          + " #{row.kind}, #{row.host}, #{row.port}, #{row.dialect}, #{row.wanted})")
  @Options(useGeneratedKeys = true, keyProperty = "id", keyColumn = "id")
  void insert(NewInstrument instrument);

  @Update("update instrument set wanted = #{wanted} where id = #{id}")
  void setWanted(@Param("id") long id, @Param("wanted") boolean wanted);

  @Update("update instrument set host = #{host}, port = #{port} where id = #{id}")
  void setAddress(@Param("id") long id, @Param("host") String host, @Param("port") int port);

  @Delete("delete from instrument where id = #{id}")
  int delete(long id);
}
