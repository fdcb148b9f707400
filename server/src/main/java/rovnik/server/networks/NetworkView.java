package rovnik.server.networks;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Service;
import rovnik.core.Refusal;
import rovnik.core.network.MatchElement;
import rovnik.core.network.MixedMode;
import rovnik.core.network.NetworkChange;
import rovnik.core.network.NetworkData;
import rovnik.core.network.NetworkFormat;
import rovnik.core.network.Residuals;
import rovnik.core.network.TimeDomain;
import rovnik.server.networks.NetworkViewDto.Change;
import rovnik.server.networks.NetworkViewDto.Curve;
import rovnik.server.networks.NetworkViewDto.FaultDto;
import rovnik.server.networks.NetworkViewDto.Pane;
import rovnik.server.networks.NetworkViewDto.Reply;
import rovnik.server.networks.NetworkViewDto.Request;
import rovnik.server.networks.NetworkViewDto.Shown;
import rovnik.server.networks.NetworkViewDto.Time;
import rovnik.server.networks.NetworkViewDto.TimeReply;

/** From files to what is drawn: corrections, gate, formats, time. */
@Service
public class NetworkView {
  private static final int MOST_NETWORKS = 8;
  private static final int MOST_PANES = 8;
  private static final int MOST_DRAWN = 40_001;
  private static final double LEAST_FAULT = 0.02;
  private static final String COMPLEX = "COMPLEX";

  /** S21 alone, before anything was asked. */
  public static final Request PLAIN = Request.PLAIN;

  private final NetworkService networks;

  NetworkView(NetworkService networks) {
    this.networks = networks;
  }

  Reply of(Request r) {
    List<Long> ids = r.networks() == null ? List.of() : r.networks();
    check(r);
    if (ids.isEmpty() || ids.size() > MOST_NETWORKS) {
      throw new Refusal("networks", "Choose 1 to " + MOST_NETWORKS + " files to show.");
    }
    return new Reply(ids.stream().map(id -> shown(id, r)).toList());
  }

  /** Refuses what is wrong whatever the network. */
  public static void check(Request r) {
    if (r == null) {
      throw new Refusal("view", "Say what to show.");
    }
    if (r.panes() != null && r.panes().size() > MOST_PANES) {
      throw new Refusal("panes", "At most " + MOST_PANES + " views are shown at once.");
    }
    if (r.limits() != null) {
      r.limits().forEach(NetworkViewDto.LimitDto::toCore);
    }
  }

  private Shown shown(long id, Request r) {
    String name = networks.find(id).name();
    Shown shown = shown(id, name, name, networks.data(id), r, null, false);
    return networks.noise(id).map(n -> shown.withNote(n.words())).orElse(shown);
  }

  /**
   * One network as it is drawn.
   *
   * @param subject name of the part, which chooses the limits for it; "" if it is not known
   * @param trust what errors are left in it, null if that is not known
   * @param invalid true if it must not be judged
   */
  public Shown shown(
      long id,
      String name,
      String subject,
      NetworkData data,
      Request r,
      @Nullable Residuals trust,
      boolean invalid) {
    List<Pane> panes = r.panes() == null ? List.of() : r.panes();
    NetworkData n = reckoned(changed(data, r.change()), r);
    TimeReply time = null;
    String unevenly = "";
    if (r.time() != null && has(n, r.time().row(), r.time().column())) {
      try {
        TimeDomain domain = TimeDomain.of(n, r.time().row(), r.time().column());
        time = time(domain, r.time(), n.referenceOhm()[r.time().row() - 1]);
        n = r.time().gate() == null ? n : gated(n, domain, r.time());
      } catch (Refusal refused) {
        if (!refused.field().equals("frequencyHz")) {
          throw refused;
        }
        unevenly = refused.getMessage(); // the other views are right all the same
      }
    }
    NetworkAnswers a = new NetworkAnswers(networks, n, trust, invalid);
    if (!unevenly.isEmpty()) {
      a.note(unevenly);
    }
    NetworkData drawn = thinned(n);
    if (drawn != n) {
      a.note(
          "Of "
              + n.points()
              + " points "
              + drawn.points()
              + " are drawn; numbers and verdicts are of all.");
    }
    List<Curve> curves = new ArrayList<>();
    for (Pane p : panes) {
      // A one-port laid over a two-port has no S21: its curve is empty, not an error.
      curves.add(has(n, p.row(), p.column()) ? curve(drawn, p, r) : empty(p));
    }
    return new Shown(
        id,
        name,
        n.ports(),
        n.referenceOhm(),
        drawn.frequencyHz(),
        curves,
        time,
        a.outcomes(r.limits(), subject, r.dut() == null ? "" : r.dut()),
        a.verdict(),
        a.verdict().label(),
        a.bands(r.bands(), r.otherVswr()),
        a.details(r.detailHz()),
        a.resonance(r.resonance()),
        a.cable(r.cableMetres()),
        a.window(r.fixture(), drawn),
        a.notes());
  }

  /** As many points as a screen can tell apart many times over. */
  private static NetworkData thinned(NetworkData n) {
    if (n.points() <= MOST_DRAWN) {
      return n;
    }
    int each = (n.points() + MOST_DRAWN - 1) / MOST_DRAWN;
    int points = (n.points() + each - 1) / each;
    int length = 2 * n.ports() * n.ports();
    double[] f = new double[points];
    double[] s = new double[points * length];
    for (int p = 0; p < points; p++) {
      f[p] = n.frequencyHz()[p * each];
      System.arraycopy(n.s(), p * each * length, s, p * length, length);
    }
    return new NetworkData(n.ports(), n.referenceOhm(), f, s);
  }

  private NetworkData reckoned(NetworkData n, Request r) {
    return r.memory() == null || r.math() == null ? n : r.math().of(n, networks.data(r.memory()));
  }

  private static boolean has(NetworkData n, int row, int column) {
    if (row < 1 || column < 1) {
      throw new Refusal("parameter", "Ports count from 1.");
    }
    return Math.max(row, column) <= n.ports();
  }

  private static Curve empty(Pane p) {
    return new Curve(
        NetworkData.name(p.row(), p.column()),
        p.format(),
        "",
        "",
        new Double[0],
        new double[0],
        new double[0]);
  }

  private static Curve curve(NetworkData n, Pane p, Request r) {
    String name = NetworkData.name(p.row(), p.column());
    if (COMPLEX.equals(p.format())) {
      double[] re = new double[n.points()];
      double[] im = new double[n.points()];
      for (int i = 0; i < re.length; i++) {
        re[i] = n.re(i, p.row(), p.column());
        im[i] = n.im(i, p.row(), p.column());
      }
      return new Curve(name, COMPLEX, name, "", new Double[0], re, im);
    }
    NetworkFormat format = format(p.format());
    double aperture = r.apertureHz() == null ? 0 : r.apertureHz();
    double smoothing = r.smoothing() == null ? 0 : r.smoothing();
    double[] y = NetworkFormat.smoothed(format.of(n, p.row(), p.column(), aperture), smoothing);
    Double[] finite = new Double[y.length];
    for (int i = 0; i < y.length; i++) {
      finite[i] = Double.isFinite(y[i]) ? y[i] : null;
    }
    return new Curve(
        name,
        format.name(),
        name + " " + format.label(),
        format.unit(),
        finite,
        new double[0],
        new double[0]);
  }

  private static NetworkFormat format(String name) {
    try {
      return NetworkFormat.valueOf(name == null ? "" : name.toUpperCase(Locale.ROOT));
    } catch (IllegalArgumentException e) {
      throw new Refusal(
          "format",
          "There is no format \""
              + name
              + "\"; use COMPLEX, or one of "
              + List.of(NetworkFormat.values())
              + ".");
    }
  }

  private NetworkData changed(NetworkData n, Change c) {
    if (c == null) {
      return n;
    }
    NetworkData out = n;
    if (c.firstPart() != null) {
      out = NetworkChange.withoutFirst(out, networks.data(c.firstPart()));
    }
    if (c.lastPart() != null) {
      out = NetworkChange.withoutLast(out, networks.data(c.lastPart()));
    }
    if (c.firstAdded() != null) {
      out = NetworkChange.cascade(networks.data(c.firstAdded()), out, out);
    }
    if (c.lastAdded() != null) {
      out = NetworkChange.cascade(out, networks.data(c.lastAdded()));
    }
    if (c.extensions() != null && !c.extensions().isEmpty()) {
      NetworkChange.Extension[] all = new NetworkChange.Extension[out.ports()];
      for (int i = 0; i < all.length; i++) {
        all[i] =
            i < c.extensions().size()
                ? new NetworkChange.Extension(
                    c.extensions().get(i).delaySeconds(),
                    c.extensions().get(i).lossDb(),
                    c.extensions().get(i).atHz())
                : NetworkChange.Extension.NONE;
      }
      out = NetworkChange.extended(out, all);
    }
    if (c.elements() != null) {
      for (NetworkViewDto.Element e : c.elements()) {
        out = new MatchElement(e.place(), e.part(), e.value()).before(out);
      }
    }
    if (c.referenceOhm() != null) {
      double[] ohm = new double[out.ports()];
      java.util.Arrays.fill(ohm, c.referenceOhm());
      out = NetworkChange.renormalised(out, ohm);
    }
    if (c.balanced() != null) {
      out = MixedMode.of(out, c.balanced());
    }
    return out;
  }

  private static double secondsOf(double metres, Time t) {
    double there = t.row() == t.column() ? 2 : 1;
    return there * metres / (TimeDomain.LIGHT * t.velocityFactor());
  }

  private static NetworkData gated(NetworkData n, TimeDomain domain, Time t) {
    double[] values =
        domain.gated(secondsOf(t.gate().fromMetres(), t), secondsOf(t.gate().toMetres(), t));
    double[] s = n.s().clone();
    for (int i = 0; i < n.points(); i++) {
      int at = n.at(i, t.row(), t.column());
      s[at] = values[2 * i];
      s[at + 1] = values[2 * i + 1];
    }
    return new NetworkData(n.ports(), n.referenceOhm(), n.frequencyHz(), s);
  }

  private static TimeReply time(TimeDomain domain, Time t, double z0) {
    if (!(t.velocityFactor() > 0 && t.velocityFactor() <= 1)) {
      throw new Refusal(
          "velocityFactor",
          "The velocity factor lies between 0 and 1; many cables have 0.66 or 0.85.");
    }
    if (t.mode() == null || t.shape() == null) {
      throw new Refusal("mode", "Choose BAND_PASS, IMPULSE or STEP, and a window.");
    }
    TimeDomain.Response r = domain.response(t.mode(), t.shape());
    double metresASecond = 1 / secondsOf(1, t);
    double[] metres = new double[r.seconds().length];
    for (int i = 0; i < metres.length; i++) {
      metres[i] = r.seconds()[i] * metresASecond;
    }
    // A step has no peaks: its faults are those of the impulse.
    TimeDomain.Response listed =
        t.mode() == TimeDomain.Mode.STEP ? domain.response(TimeDomain.Mode.IMPULSE, t.shape()) : r;
    double least = t.leastFault() == null ? LEAST_FAULT : t.leastFault();
    boolean signed = t.mode() != TimeDomain.Mode.BAND_PASS;
    List<FaultDto> faults =
        TimeDomain.faults(listed, least, -r.resolutionSeconds()).stream()
            .map(
                f ->
                    new FaultDto(
                        f.seconds() * metresASecond,
                        f.reflection(),
                        signed && Math.abs(f.reflection()) < 1 ? f.impedanceOhm(z0) : null,
                        kind(f.reflection(), signed)))
            .limit(40)
            .toList();
    return new TimeReply(
        metres,
        r.value(),
        r.resolutionSeconds() * metresASecond,
        r.rangeSeconds() * metresASecond,
        faults);
  }

  private static String kind(double reflection, boolean signed) {
    double size = Math.abs(reflection);
    if (!signed) {
      return size > 0.7 ? "open or short" : "mismatch";
    }
    if (size > 0.7) {
      return reflection > 0 ? "open" : "short";
    }
    return reflection > 0 ? "higher impedance" : "lower impedance";
  }

  /** The line that makes an open or a short of what was measured at a port. */
  NetworkViewDto.Extension extension(long id, int port) {
    return extension(networks.data(id), port);
  }

  public static NetworkViewDto.Extension extension(NetworkData n, int port) {
    if (!has(n, port, port)) {
      throw new Refusal("port", "There is no port " + port + ".");
    }
    NetworkChange.Extension e = NetworkChange.extensionOf(n, port);
    return new NetworkViewDto.Extension(e.delaySeconds(), e.lossDb(), e.atHz());
  }
}
