package rovnik.server.boards;

import org.apache.ibatis.annotations.Delete;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Param;
import org.apache.ibatis.annotations.Select;
import org.apache.ibatis.annotations.Update;
import org.jspecify.annotations.Nullable;

/** Table board_picture. */
@Mapper
public interface BoardMapper {
  record BoardRow(long jobId, double widthMetres, double heightMetres) {}

  record PictureRow(String type, byte[] picture) {}

  @Select("select job_id, width_metres, height_metres from board_picture where job_id = #{jobId}")
  @Nullable BoardRow find(long jobId);

  @Select("select type, picture from board_picture where job_id = #{jobId}")
  @Nullable PictureRow picture(long jobId);

  @Insert(
      "merge into board_picture (job_id, type, width_metres, height_metres, picture) key (job_id)"
          + " values (#{b.jobId}, #{p.type}, #{b.widthMetres}, #{b.heightMetres}, #{p.picture})")
  void save(@Param("b") BoardRow board, @Param("p") PictureRow picture);

  @Update(
      "update board_picture set width_metres = #{b.widthMetres}, height_metres = #{b.heightMetres}"
          + " where job_id = #{b.jobId}")
  void resize(@Param("b") BoardRow board);

  @Delete("delete from board_picture where job_id = #{jobId}")
  int delete(long jobId);
}
