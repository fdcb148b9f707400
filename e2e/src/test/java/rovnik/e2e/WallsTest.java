package rovnik.e2e;

import static com.tngtech.archunit.lang.syntax.ArchRuleDefinition.noClasses;

import com.tngtech.archunit.core.domain.JavaClasses;
import com.tngtech.archunit.core.importer.ClassFileImporter;
import com.tngtech.archunit.core.importer.ImportOption;
import com.tngtech.archunit.library.dependencies.SlicesRuleDefinition;
import org.testng.Assert;
import org.testng.annotations.Test;

/** Imports only go downward. */
public class WallsTest {
  private final JavaClasses classes =
      new ClassFileImporter()
          .withImportOption(new ImportOption.DoNotIncludeTests())
          .importPackages("rovnik");

  @Test
  public void allRoomsAreSeen() {
    for (String room : new String[] {"core", "instruments", "standins", "server"}) {
      Assert.assertTrue(
          classes.stream().anyMatch(c -> c.getPackageName().startsWith("rovnik." + room)), room);
    }
  }

  @Test
  public void coreKnowsOnlyItselfAndMathematics() {
    noClasses()
        .that()
        .resideInAPackage("rovnik.core..")
        .should()
        .dependOnClassesThat()
        .resideOutsideOfPackages(
            "rovnik.core..",
            "java..",
            "jdk.incubator.vector..",
            "org.jtransforms..",
            "org.visnow..",
            "org.hipparchus..")
        .check(classes);
    noClasses()
        .that()
        .resideInAPackage("rovnik.core..")
        .should()
        .dependOnClassesThat()
        .resideInAnyPackage("java.net..", "java.sql..", "java.nio.channels..", "java.awt..")
        .check(classes);
  }

  @Test
  public void instrumentsKnowNoDatabaseServerOrStandins() {
    noClasses()
        .that()
        .resideInAPackage("rovnik.instruments..")
        .should()
        .dependOnClassesThat()
        .resideInAnyPackage(
            "rovnik.server..",
            "rovnik.standins..",
            "java.sql..",
            "org.springframework..",
            "org.apache.ibatis..")
        .check(classes);
  }

  /** What checks the measuring code must not share it. */
  @Test
  public void standinsShareNothing() {
    noClasses()
        .that()
        .resideInAPackage("rovnik.standins..")
        .should()
        .dependOnClassesThat()
        .resideOutsideOfPackages("rovnik.standins..", "java..")
        .check(classes);
  }

  @Test
  public void serverReachesStandinsOnlyBySocket() {
    noClasses()
        .that()
        .resideInAPackage("rovnik.server..")
        .should()
        .dependOnClassesThat()
        .resideInAPackage("rovnik.standins..")
        .check(classes);
  }

  @Test
  public void noCircles() {
    SlicesRuleDefinition.slices()
        .matching("rovnik.server.(*)..")
        .should()
        .beFreeOfCycles()
        .check(classes);
  }
}
