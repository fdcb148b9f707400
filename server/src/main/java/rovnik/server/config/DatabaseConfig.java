package rovnik.server.config;

import com.zaxxer.hikari.HikariDataSource;
import java.sql.Connection;
import java.sql.SQLException;
import java.sql.Statement;
import javax.sql.DataSource;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.boot.context.properties.ConfigurationProperties;
import org.springframework.boot.jdbc.autoconfigure.DataSourceProperties;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;

/** The pool of connections to the database in the data folder. */
@Configuration
class DatabaseConfig {
  private static final Logger LOG = LoggerFactory.getLogger(DatabaseConfig.class);

  @Bean
  @ConfigurationProperties("spring.datasource.hikari")
  DataSource dataSource(DataSourceProperties properties) {
    return properties.initializeDataSourceBuilder().type(ClosingPool.class).build();
  }

  /**
   * Closes the database itself before its connections: the pool closes those in threads that it
   * interrupts, and a database that is interrupted while it closes leaves an error log behind.
   */
  static final class ClosingPool extends HikariDataSource {
    @Override
    public void close() {
      if (!isClosed()) {
        try (Connection last = getConnection();
            Statement s = last.createStatement()) {
          s.execute("SHUTDOWN");
        } catch (SQLException e) {
          LOG.warn("The database did not close in order: {}", e.getMessage());
        }
      }
      super.close();
    }
  }
}
