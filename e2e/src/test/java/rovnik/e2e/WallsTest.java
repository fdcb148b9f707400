package rovnik.e2e;

import static com.tngtech.archunit.lang.syntax.ArchRuleDefinition.noClasses;

import com.tngtech.archunit.core.domain.JavaClass;
import com.tngtech.archunit.core.domain.JavaClasses;
import com.tngtech.archunit.core.importer.ClassFileImporter;
import com.tngtech.archunit.core.importer.ImportOption;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import java.util.TreeSet;
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
            "javax.sound.sampled..", // reads the headers of WAV files
            "jdk.incubator.vector..",
            "org.jtransforms..",
            "org.visnow..",
            "org.hipparchus..",
            "org.ejml..")
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

  /** What makes a signal and what analyses one meet in its description alone. */
  @Test
  public void makingAndAnalysingDoNotKnowEachOther() {
    noClasses()
        .that()
        .resideInAPackage("rovnik.core.modulation.analysis..")
        .should()
        .dependOnClassesThat()
        .haveSimpleName("Modulator")
        .check(classes);
    noClasses()
        .that()
        .resideInAnyPackage("rovnik.core.modulation", "rovnik.core.modulation.wave..")
        .should()
        .dependOnClassesThat()
        .resideInAnyPackage("rovnik.core.modulation.analysis..", "rovnik.core.modulation.analog..")
        .check(classes);
    noClasses()
        .that()
        .resideInAnyPackage("rovnik.core.modulation.analysis..", "rovnik.core.modulation.analog..")
        .should()
        .dependOnClassesThat()
        .resideInAPackage("rovnik.core.modulation.wave..")
        .check(classes);
  }

  @Test
  public void noCircles() {
    for (String room : new String[] {"core", "instruments", "standins", "server"}) {
      Map<String, Set<String>> uses = new TreeMap<>();
      for (JavaClass c : classes) {
        String from = feature(c, room);
        c.getDirectDependenciesFromSelf().stream()
            .map(d -> feature(d.getTargetClass(), room))
            .filter(to -> !from.isEmpty() && !to.isEmpty() && !to.equals(from))
            .forEach(to -> uses.computeIfAbsent(from, k -> new TreeSet<>()).add(to));
      }
      uses.forEach(
          (from, to) ->
              Assert.assertFalse(
                  to.stream().anyMatch(t -> reaches(uses, t, from, new TreeSet<>())),
                  from + " and one of " + to + " import each other in " + room));
    }
  }

  private static boolean reaches(
      Map<String, Set<String>> uses, String from, String wanted, Set<String> seen) {
    return from.equals(wanted)
        || seen.add(from)
            && uses.getOrDefault(from, Set.of()).stream()
                .anyMatch(next -> reaches(uses, next, wanted, seen));
  }

  /** "live" for rovnik.server.live.Frame in the room server, "" for all else. */
  private static String feature(JavaClass c, String room) {
    String prefix = "rovnik." + room + ".";
    String name = c.getPackageName() + ".";
    return name.startsWith(prefix) && name.length() > prefix.length()
        ? name.substring(prefix.length()).split("\\.")[0]
        : "";
  }
}
