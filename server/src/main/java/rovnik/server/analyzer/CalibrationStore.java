package rovnik.server.analyzer;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.util.List;
import java.util.zip.CRC32;
import java.util.zip.DataFormatException;
import java.util.zip.DeflaterOutputStream;
import java.util.zip.Inflater;
import org.springframework.stereotype.Component;
import rovnik.core.network.CalibrationMethod;
import rovnik.core.network.ErrorTerms;
import rovnik.core.network.KeptCalibration;
import rovnik.core.network.SweepSettings;
import rovnik.server.analyzer.CalibrationMapper.Row;
import rovnik.server.config.Conflict;
import tools.jackson.databind.json.JsonMapper;

/** Calibrations on disk: six terms a direction, as 64-bit floats with a checksum. */
@Component
class CalibrationStore {
  private static final int TERMS = 6;
  private final CalibrationMapper mapper;
  private final JsonMapper json;

  CalibrationStore(CalibrationMapper mapper, JsonMapper json) {
    this.mapper = mapper;
    this.json = json;
  }

  List<CalibrationDto> all() {
    return mapper.all().stream().map(this::dto).toList();
  }

  CalibrationDto dto(long id) {
    return dto(row(id));
  }

  private CalibrationDto dto(Row r) {
    CalibrationMethod method = CalibrationMethod.valueOf(r.method());
    return new CalibrationDto(
        r.id(),
        r.name(),
        method,
        method.label(),
        r.kit(),
        r.identity(),
        r.madeAtMillis(),
        SweepDto.of(json.readValue(r.sweepJson(), SweepDto.class).toCore()),
        r.verified());
  }

  private Row row(long id) {
    Row row = mapper.find(id);
    if (row == null) {
      throw Conflict.notFound("calibration", id);
    }
    return row;
  }

  KeptCalibration find(long id) {
    Row r = row(id);
    SweepSettings sweep = json.readValue(r.sweepJson(), SweepDto.class).toCore();
    return new KeptCalibration(
        id,
        r.name(),
        CalibrationMethod.valueOf(r.method()),
        r.kit(),
        r.madeAtMillis(),
        sweep,
        r.identity(),
        terms(r, sweep.frequencies()));
  }

  Double verified(long id) {
    return row(id).verified();
  }

  KeptCalibration keep(KeptCalibration c) {
    byte[] plain = plain(c.terms());
    ByteArrayOutputStream out = new ByteArrayOutputStream(plain.length);
    try (DeflaterOutputStream deflate = new DeflaterOutputStream(out)) {
      deflate.write(plain);
    } catch (IOException impossible) {
      throw new UncheckedIOException(impossible);
    }
    CalibrationMapper.NewRow added =
        new CalibrationMapper.NewRow(
            new Row(
                0,
                c.name(),
                c.identity(),
                c.method().name(),
                c.kit(),
                c.madeAtMillis(),
                json.writeValueAsString(SweepDto.of(c.sweep())),
                c.terms().points(),
                null,
                crc(plain),
                out.toByteArray()));
    mapper.insert(added);
    return find(added.id);
  }

  void verified(long id, double worst) {
    mapper.verified(id, worst);
  }

  void remove(long id) {
    if (mapper.delete(id) == 0) {
      throw Conflict.notFound("calibration", id);
    }
  }

  private static double[][] arrays(ErrorTerms.Side s) {
    return new double[][] {
      s.directivity(), s.match(), s.tracking(), s.loadMatch(), s.through(), s.isolation()
    };
  }

  private static byte[] plain(ErrorTerms t) {
    int sides = t.reverse() == null ? 1 : 2;
    ByteBuffer b = ByteBuffer.allocate(8 * 2 * t.points() * TERMS * sides);
    b.order(ByteOrder.LITTLE_ENDIAN);
    for (ErrorTerms.Side s :
        sides == 1 ? List.of(t.forward()) : List.of(t.forward(), t.reverse())) {
      for (double[] values : arrays(s)) {
        for (double v : values) {
          b.putDouble(v);
        }
      }
    }
    return b.array();
  }

  private static ErrorTerms terms(Row r, double[] hz) {
    Inflater inflater = new Inflater();
    byte[] plain = new byte[8 * 2 * r.points() * TERMS * 2];
    int got = 0;
    try {
      inflater.setInput(r.termsDeflated());
      int n;
      while (got < plain.length && (n = inflater.inflate(plain, got, plain.length - got)) > 0) {
        got += n;
      }
    } catch (DataFormatException e) {
      throw new IllegalStateException("the stored calibration is damaged", e);
    } finally {
      inflater.end();
    }
    byte[] read = java.util.Arrays.copyOf(plain, got);
    if (crc(read) != r.crc32()) {
      throw new IllegalStateException("the stored calibration is damaged: its checksum differs");
    }
    ByteBuffer b = ByteBuffer.wrap(read).order(ByteOrder.LITTLE_ENDIAN);
    ErrorTerms.Side forward = side(b, r.points());
    return new ErrorTerms(hz, forward, b.hasRemaining() ? side(b, r.points()) : null);
  }

  private static ErrorTerms.Side side(ByteBuffer b, int points) {
    double[][] all = new double[TERMS][2 * points];
    for (double[] values : all) {
      for (int i = 0; i < values.length; i++) {
        values[i] = b.getDouble();
      }
    }
    return new ErrorTerms.Side(all[0], all[1], all[2], all[3], all[4], all[5]);
  }

  private static long crc(byte[] plain) {
    CRC32 crc = new CRC32();
    crc.update(plain);
    return crc.getValue();
  }
}
