package rovnik.server.desk;

import java.util.List;
import org.apache.ibatis.annotations.Delete;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Param;
import org.apache.ibatis.annotations.Select;

/** Table arrangement. */
@Mapper
interface ArrangementMapper {
  record ArrangementRow(long id, String area, String name, String tilesJson) {}

  @Select("select id, area, name, tiles_json from arrangement where area = #{area} order by name")
  List<ArrangementRow> ofArea(@Param("area") String area);

  @Insert(
      "merge into arrangement (area, name, tiles_json) key (area, name)"
          + " values (#{area}, #{name}, #{json})")
  void save(@Param("area") String area, @Param("name") String name, @Param("json") String json);

  @Delete("delete from arrangement where id = #{id}")
  int delete(@Param("id") long id);
}
