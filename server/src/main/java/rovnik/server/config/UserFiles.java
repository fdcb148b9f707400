package rovnik.server.config;

import java.util.List;
import rovnik.instruments.dialect.YamlFile;

/** A folder of files that the user writes; those that cannot be used are told. */
public interface UserFiles {
  List<YamlFile.Broken> broken();
}
