package rovnik.server.results;

import io.swagger.v3.oas.annotations.media.Schema;
import java.util.List;
import org.jspecify.annotations.Nullable;
import rovnik.core.result.Axis;
import rovnik.core.result.Fact;
import rovnik.core.result.Series;
import rovnik.core.result.Values;

/**
 * A series as sent and stored. In a frame the arrays come behind the header under the series' id
 * and their own name ("trace.y"); in JSON they are here.
 *
 * @param id stable key, unique within an outcome
 * @param label as shown, "" for one that needs no name
 * @param role DATA, LIMIT or EDGE; the first DATA series is the main one
 * @param plane that values are referred to, "" if they belong to none
 * @param calibrated false if levels are relative to full scale only
 * @param axis where the values stand
 * @param quantity of the values, such as "Level"
 * @param unit of the values
 * @param rows of a matrix, null for other series
 * @param x places of the values; null if it was not asked for
 * @param y real values, null in it where there is none; null for others
 * @param re real parts of complex values
 * @param im imaginary parts of complex values
 * @param z a matrix, place after place
 * @param facts how it was made
 */
@Schema(name = "Series")
public record SeriesDto(
    String id,
    String label,
    Series.Role role,
    String plane,
    boolean calibrated,
    AxisDto axis,
    String quantity,
    String unit,
    @Nullable AxisDto rows,
    double @Nullable [] x,
    @Nullable Double @Nullable [] y,
    double @Nullable [] re,
    double @Nullable [] im,
    float @Nullable [] z,
    List<FactDto> facts) {

  /**
   * An axis.
   *
   * @param quantity "Frequency", "Offset", "Distance", ...
   * @param unit "Hz", "m", "s", or ""
   * @param logarithmic best drawn over decades
   * @param start place of the first value
   * @param step distance of two values; 0 if each has a place of its own
   */
  @Schema(name = "Axis")
  public record AxisDto(
      String quantity, String unit, boolean logarithmic, double start, double step, int points) {
    static AxisDto of(Axis a) {
      return new AxisDto(a.quantity(), a.unit(), a.logarithmic(), a.start(), a.step(), a.points());
    }

    Axis toCore(double @Nullable [] own) {
      return new Axis(quantity, unit, logarithmic, start, step, points, own);
    }
  }

  /** A number with its unit, or words where the number is null. */
  @Schema(name = "Fact")
  public record FactDto(String label, @Nullable Double value, String unit, String text) {
    public static FactDto of(Fact f) {
      return new FactDto(f.label(), Nulls.orNull(f.value()), f.unit(), f.text());
    }

    public Fact toCore() {
      return new Fact(label, Nulls.orNan(value), unit, text);
    }
  }

  /** The series without its arrays, as the header of a frame and a stored run have it. */
  static SeriesDto head(Series s) {
    return of(s, false, false);
  }

  /** The series with its values and with the place of each. */
  public static SeriesDto whole(Series s) {
    return of(s, true, true);
  }

  private static SeriesDto of(Series s, boolean values, boolean places) {
    Values v = values ? s.values() : null;
    return new SeriesDto(
        s.id(),
        s.label(),
        s.role(),
        s.plane(),
        s.calibrated(),
        AxisDto.of(s.x()),
        s.quantity(),
        s.unit(),
        s.values() instanceof Values.Matrix m ? AxisDto.of(m.rows()) : null,
        places ? s.x().places() : null,
        v instanceof Values.Real r ? Nulls.orNull(r.y()) : null,
        v instanceof Values.Complex c ? c.re() : null,
        v instanceof Values.Complex c ? c.im() : null,
        v instanceof Values.Matrix m ? m.z() : null,
        s.facts().stream().map(FactDto::of).toList());
  }

  /** The series again, its arrays from here or from elsewhere. */
  Series toCore(Arrays arrays) {
    double[] own = axis.step() == 0 ? arrays.doubles(id + ".x", axis.points()) : null;
    Axis place = axis.toCore(own);
    Values v;
    if (rows != null) {
      v =
          new Values.Matrix(
              arrays.floats(id + ".z", axis.points() * rows.points()), rows.toCore(null));
    } else if (arrays.has(id + ".re")) {
      v =
          new Values.Complex(
              arrays.doubles(id + ".re", axis.points()), arrays.doubles(id + ".im", axis.points()));
    } else {
      v = new Values.Real(arrays.doubles(id + ".y", axis.points()));
    }
    return new Series(
        id,
        label,
        role,
        plane,
        calibrated,
        place,
        quantity,
        unit,
        v,
        facts.stream().map(FactDto::toCore).toList());
  }

  /** The arrays that whole series carry themselves. */
  public static Arrays arraysOf(List<SeriesDto> all) {
    return new Arrays() {
      private SeriesDto find(String name) {
        String id = name.substring(0, name.lastIndexOf('.'));
        return all.stream().filter(s -> s.id().equals(id)).findFirst().orElseThrow();
      }

      @Override
      public boolean has(String name) {
        return name.endsWith(".re") && find(name).re() != null;
      }

      @Override
      public double[] doubles(String name, int points) {
        SeriesDto s = find(name);
        double[] values =
            switch (name.substring(name.lastIndexOf('.'))) {
              case ".x" -> s.x();
              case ".re" -> s.re();
              case ".im" -> s.im();
              default -> s.y() == null ? null : Nulls.orNan(s.y());
            };
        if (values == null || values.length != points) {
          throw new IllegalStateException("there are no values of " + name);
        }
        return values;
      }

      @Override
      public float[] floats(String name, int points) {
        float[] z = find(name).z();
        if (z == null || z.length != points) {
          throw new IllegalStateException("there are no values of " + name);
        }
        return z;
      }
    };
  }

  /** Arrays by name. */
  public interface Arrays {
    boolean has(String name);

    double[] doubles(String name, int points);

    float[] floats(String name, int points);
  }
}
