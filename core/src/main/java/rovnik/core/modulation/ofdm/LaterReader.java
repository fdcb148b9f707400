package rovnik.core.modulation.ofdm;

import java.util.ArrayList;
import java.util.List;

/** Reads the data of a packet that says behind SIGNAL what it is, of one user or of several. */
final class LaterReader {
  private final Channels channels;
  private final ChannelSamples samples;
  private final OfdmSettings settings;
  private final List<OfdmPacket.Field> first;

  /**
   * @param first fields of the preamble up to SIGNAL
   */
  LaterReader(Channels channels, OfdmSettings settings, List<OfdmPacket.Field> first) {
    this.channels = channels;
    this.samples = channels.whole();
    this.settings = settings;
    this.first = first;
  }

  /**
   * Reads a packet; what there is of it if it is cut off.
   *
   * @param usual symbols of usual length behind SIGNAL, as that says
   */
  OfdmPacket read(PacketFinder.Found found, SignalField signal, PacketHeader header, int usual) {
    PacketBody body = header.data();
    int count = body.symbols(usual);
    FramePlan whole = body.plan(count);
    PacketFinder.Found own =
        channels.moved(found, body.training(), -settings.toLowestHz(), samples);
    int there = samples.count() - own.training() - whole.transform();
    FramePlan plan = whole.with(whole.data().stream().filter(s -> s.at() <= there).toList());
    SymbolReader symbols = new SymbolReader(samples, settings, plan);
    symbols.begin(plan, own, plan.length());
    if (body.learned() && !plan.data().isEmpty()) {
      plan = new LearnedTraining(symbols, plan).ofOneLevel();
      symbols.trainAgain(plan);
    }
    // What else is said comes before the data: samples are read no farther than those go.
    PacketBody full = plan.data().isEmpty() ? body : body.withMore(symbols, plan);
    int got = plan.data().size();
    SymbolReader.Round round =
        got == 0 ? new SymbolReader.Round(0, plan.tones().length) : symbols.data(plan);
    String cut =
        count == 0
            ? "SIGNAL leaves no room for its data"
            : got < count ? "cut off: " + got + " of " + count + " symbols are there" : "";
    List<Told> told = new ArrayList<>();
    for (UserData user : full.users()) {
      told.add(cut.isEmpty() ? bits(user, symbols, plan, round) : Told.nothing(cut, ""));
    }
    List<HeaderBits.Part> parts = new ArrayList<>(signal.parts(SignalField.SPOOFED));
    parts.addAll(full.parts());
    if (body.learned()) {
      parts.add(new HeaderBits.Part("Training", "Signs", "learned from the signal", "", ""));
    }
    List<OfdmPacket.Field> fields = new ArrayList<>();
    first.forEach(f -> fields.add(f.times(body.width())));
    body.fields().forEach(f -> fields.add(f.times(body.width())));
    List<UnusedTones.Unit> unused =
        got == 0 || body.watched().isEmpty()
            ? List.of()
            : UnusedTones.of(symbols, plan, body.watched(), full.users());
    OfdmPacket.Said said =
        said(header.format(), parts, fields, full, told, count, usual).with(unused);
    return OfdmPacket.of(
        symbols,
        plan,
        round,
        cut.isEmpty() ? wrong(full.users(), told) : cut,
        PacketReader.fieldPower(symbols, plan, fields),
        said);
  }

  private static String wrong(List<? extends UserData> users, List<Told> told) {
    for (int u = 0; u < told.size(); u++) {
      if (!told.get(u).wrong.isEmpty()) {
        String whose = users.get(u) instanceof SharedUser s ? s.name() + ": " : "";
        return whose + told.get(u).wrong;
      }
    }
    return "";
  }

  private static OfdmPacket.Said said(
      PacketFormat format,
      List<HeaderBits.Part> parts,
      List<OfdmPacket.Field> fields,
      PacketBody body,
      List<Told> told,
      int count,
      int usual) {
    List<OfdmPacket.User> users = new ArrayList<>();
    for (int u = 0; u < told.size(); u++) {
      if (body.users().get(u) instanceof SharedUser s) {
        users.add(told.get(u).of(s));
      }
    }
    UserData only = body.users().get(0);
    boolean one = users.isEmpty();
    Told of = told.get(0);
    boolean named = of.bytes != null || format == PacketFormat.HT;
    return new OfdmPacket.Said(
        format,
        parts,
        fields,
        one ? only.coding() : null,
        one && named ? only.bytes(count) : Double.NaN,
        one ? of.bytes : null,
        one ? of.checked : told.stream().anyMatch(t -> t.checked),
        one ? of.words : words(told),
        body.learned(),
        LegacyPlan.end(usual),
        users,
        List.of());
  }

  private static String words(List<Told> told) {
    long checked = told.stream().filter(t -> t.checked).count();
    return checked == 0
        ? "no bits of them are decoded"
        : checked + (checked == 1 ? " checked, it fits" : " checked, they fit");
  }

  /**
   * What was made of the bits of a user.
   *
   * @param checked there is a check, and it fits
   * @param words of that, "" if something is wrong
   */
  private record Told(String wrong, boolean checked, String words, byte[] bytes) {
    /** Nothing was decoded. */
    static Told nothing(String wrong, String words) {
      return new Told(wrong, false, words, null);
    }

    OfdmPacket.User of(SharedUser s) {
      String says = wrong.isEmpty() ? words : wrong;
      return new OfdmPacket.User(s.name(), s.unit().all(), s.coding(), bytes, says);
    }
  }

  private static Told bits(
      UserData user, SymbolReader symbols, FramePlan plan, SymbolReader.Round round) {
    Coding coding = user.coding();
    if (coding == null) {
      return Told.nothing("", "not read: " + ((SharedUser) user).why());
    }
    if (user.lowDensity()) {
      return Told.nothing("", "its bits are in LDPC and not decoded");
    }
    if (user.interleaver() == null) {
      return Told.nothing("", "its bits are not decoded");
    }
    int count = round.phase.length;
    if (user.bits(count) > count * coding.dataBits(user.tones().length)) {
      return Told.nothing("SIGNAL ends before the data that are named", "");
    }
    if (user.bytes(count) < 1) {
      return Told.nothing("", "it has no data");
    }
    LegacyBits.Payload p =
        BitReader.payload(
            symbols,
            plan,
            round,
            coding,
            user.interleaver(),
            user.tones(),
            user.bits(count),
            user.bytes(count));
    String wrong = user.wrong(p);
    boolean right = wrong.isEmpty();
    return new Told(wrong, right && user.checked(p), right ? user.words(p) : "", p.bytes());
  }
}
