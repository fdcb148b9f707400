package rovnik.server;

import org.springframework.boot.SpringApplication;
import org.springframework.boot.autoconfigure.SpringBootApplication;
import org.springframework.boot.context.properties.ConfigurationPropertiesScan;
import org.springframework.scheduling.annotation.EnableScheduling;

/** Starts the server. */
@SpringBootApplication
@ConfigurationPropertiesScan
@EnableScheduling
public class RovnikApplication {
  public static void main(String[] args) {
    SpringApplication.run(RovnikApplication.class, args);
  }
}
