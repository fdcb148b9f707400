package rovnik.server.access;

import java.time.OffsetDateTime;
import java.util.List;
import org.apache.ibatis.annotations.Delete;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Param;
import org.apache.ibatis.annotations.Select;
import org.apache.ibatis.annotations.Update;

/** Table account. */
@Mapper
interface AccountMapper {
  /**
   * An account.
   *
   * @param hash salted hash of the password, with the name of its kind before it
   */
  record AccountRow(long id, String name, Role role, String hash, OffsetDateTime madeAt) {}

  @Select("select id, name, role, hash, made_at from account order by name")
  List<AccountRow> all();

  @Insert(
      "insert into account (name, role, hash, made_at) values (#{name}, #{role}, #{hash},"
          + " #{madeAt})")
  void insert(
      @Param("name") String name,
      @Param("role") Role role,
      @Param("hash") String hash,
      @Param("madeAt") OffsetDateTime madeAt);

  @Update("update account set role = #{role}, hash = #{hash} where id = #{id}")
  int change(@Param("id") long id, @Param("role") Role role, @Param("hash") String hash);

  @Delete("delete from account where id = #{id}")
  int delete(@Param("id") long id);
}
