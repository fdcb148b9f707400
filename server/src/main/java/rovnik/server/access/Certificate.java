package rovnik.server.access;

import java.io.IOException;
import java.io.InputStream;
import java.net.InetAddress;
import java.net.NetworkInterface;
import java.net.UnknownHostException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.nio.file.attribute.PosixFilePermissions;
import java.security.GeneralSecurityException;
import java.security.KeyStore;
import java.security.MessageDigest;
import java.security.cert.X509Certificate;
import java.time.Duration;
import java.time.Instant;
import java.util.HashMap;
import java.util.HexFormat;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeSet;
import java.util.concurrent.TimeUnit;
import org.springframework.boot.context.properties.bind.Bindable;
import org.springframework.boot.context.properties.bind.Binder;
import org.springframework.context.ApplicationContextInitializer;
import org.springframework.context.ConfigurableApplicationContext;
import org.springframework.core.Ordered;
import org.springframework.core.env.ConfigurableEnvironment;
import org.springframework.core.env.Environment;
import org.springframework.core.env.MapPropertySource;
import rovnik.server.config.StartRefused;

/**
 * What a network is answered with: the user's certificate ({@code rovnik.certificate} and {@code
 * rovnik.certificate-key}, PEM), or one that Rovnik makes at its first start there, with the JDK's
 * keytool, and keeps in its data folder. A port that speaks TLS answers no http.
 */
public final class Certificate
    implements ApplicationContextInitializer<ConfigurableApplicationContext>, Ordered {
  private static final String ALIAS = "rovnik";
  private static final String FILE = "certificate.p12";
  private static final Duration VALID = Duration.ofDays(820);
  private static final Duration RENEWED_BEFORE = Duration.ofDays(30);
  private static final long KEYTOOL_SECONDS = 60;

  /** The store is guarded by its file's mode; a store of this kind must have a password. */
  private static final String STORE_PASSWORD = "of-the-data-folder";

  /** After the folder is known to be ours. */
  @Override
  public int getOrder() {
    return Ordered.LOWEST_PRECEDENCE;
  }

  @Override
  public void initialize(ConfigurableApplicationContext context) {
    ConfigurableEnvironment settings = context.getEnvironment();
    String own = settings.getProperty("rovnik.certificate", "");
    String key = settings.getProperty("rovnik.certificate-key", "");
    if (own.isEmpty() != key.isEmpty()) {
      throw new StartRefused("Give both --certificate and --certificate-key, as PEM files.");
    }
    Map<String, Object> tls = new HashMap<>();
    if (!own.isEmpty()) {
      readable(own);
      readable(key);
      tls.put("server.ssl.certificate", "file:" + own);
      tls.put("server.ssl.certificate-private-key", "file:" + key);
    } else if (!AddressGuard.loopback(settings)) {
      Path store = Path.of(settings.getProperty("rovnik.data", ".")).resolve(FILE);
      X509Certificate certificate = present(store, settings);
      tls.put("server.ssl.key-store", "file:" + store.toAbsolutePath());
      tls.put("server.ssl.key-store-type", "PKCS12");
      tls.put("server.ssl.key-store-password", STORE_PASSWORD);
      tls.put("server.ssl.key-alias", ALIAS);
      System.out.println(
          "The certificate was made by this Rovnik. A browser warns of it once; compare its"
              + " SHA-256 fingerprint: "
              + fingerprint(certificate));
    }
    if (!tls.isEmpty()) {
      settings.getPropertySources().addFirst(new MapPropertySource("certificate", tls));
    }
  }

  private static void readable(String file) {
    if (!Files.isReadable(Path.of(file))) {
      throw new StartRefused("The file " + file + " cannot be read. Correct its name.");
    }
  }

  /** The certificate in the folder, made anew if there is none, it ends soon or lacks a name. */
  private static X509Certificate present(Path store, Environment settings) {
    try {
      Set<String> names = names(settings);
      if (Files.exists(store)) {
        X509Certificate there = read(store);
        Instant end = there.getNotAfter().toInstant();
        if (end.isAfter(Instant.now().plus(RENEWED_BEFORE)) && namesOf(there).containsAll(names)) {
          return there;
        }
      }
      make(store, names);
      return read(store);
    } catch (IOException | GeneralSecurityException e) {
      throw new StartRefused(
          "The certificate in "
              + store
              + " cannot be read or made ("
              + e.getMessage()
              + "). Remove it, or give one with --certificate.");
    }
  }

  private static X509Certificate read(Path store) throws IOException, GeneralSecurityException {
    KeyStore keys = KeyStore.getInstance("PKCS12");
    try (InputStream in = Files.newInputStream(store)) {
      keys.load(in, STORE_PASSWORD.toCharArray());
    }
    if (!(keys.getCertificate(ALIAS) instanceof X509Certificate certificate)) {
      throw new IOException("it holds no certificate");
    }
    return certificate;
  }

  private static Set<String> namesOf(X509Certificate certificate) throws GeneralSecurityException {
    Set<String> names = new TreeSet<>();
    for (var name : certificate.getSubjectAlternativeNames()) {
      names.add(((Integer) name.get(0) == 7 ? "ip:" : "dns:") + name.get(1));
    }
    return names;
  }

  /** Names and addresses that the server is asked for by, in keytool's words. */
  private static Set<String> names(Environment settings) throws IOException {
    Set<String> names = new TreeSet<>(Set.of("dns:localhost", "ip:127.0.0.1"));
    InetAddress listen = InetAddress.getByName(AddressGuard.address(settings));
    if (listen.isAnyLocalAddress()) {
      NetworkInterface.networkInterfaces()
          .flatMap(NetworkInterface::inetAddresses)
          .filter(a -> a.getAddress().length == 4)
          .forEach(a -> names.add("ip:" + a.getHostAddress()));
      try {
        name(names, InetAddress.getLocalHost().getHostName());
      } catch (UnknownHostException withoutName) {
        // it is asked for by its address
      }
    } else if (listen.getAddress().length == 4) {
      names.add("ip:" + listen.getHostAddress());
    }
    Binder.get(settings)
        .bind("rovnik.hosts", Bindable.listOf(String.class))
        .orElse(List.of())
        .forEach(host -> name(names, host));
    return names;
  }

  private static void name(Set<String> names, String host) {
    if (host.matches("[\\d.]+")) {
      names.add("ip:" + host);
    } else if (host.matches("[A-Za-z0-9]([A-Za-z0-9.-]*[A-Za-z0-9])?")) {
      names.add("dns:" + host);
    }
  }

  private static void make(Path store, Set<String> names) throws IOException {
    Path part = store.resolveSibling(FILE + ".part");
    Files.deleteIfExists(part);
    ProcessBuilder keytool =
        new ProcessBuilder(
                Path.of(System.getProperty("java.home"), "bin", "keytool").toString(),
                "-genkeypair",
                "-alias",
                ALIAS,
                "-keyalg",
                "EC",
                "-groupname",
                "secp256r1",
                "-dname",
                "CN=Rovnik",
                "-ext",
                "san=" + String.join(",", names),
                "-ext",
                "eku=serverAuth",
                "-validity",
                Long.toString(VALID.toDays()),
                "-storetype",
                "PKCS12",
                "-keystore",
                part.toString(),
                "-storepass:env",
                "STORE_PASSWORD")
            .redirectErrorStream(true);
    keytool.environment().put("STORE_PASSWORD", STORE_PASSWORD);
    Process run = keytool.start();
    try {
      String said = new String(run.getInputStream().readAllBytes(), StandardCharsets.UTF_8).strip();
      if (!run.waitFor(KEYTOOL_SECONDS, TimeUnit.SECONDS) || run.exitValue() != 0) {
        throw new IOException("keytool: " + said);
      }
    } catch (InterruptedException e) {
      Thread.currentThread().interrupt();
      throw new IOException("stopped", e);
    } finally {
      run.destroyForcibly();
    }
    if (Files.getFileStore(part).supportsFileAttributeView("posix")) {
      Files.setPosixFilePermissions(part, PosixFilePermissions.fromString("rw-------"));
    }
    Files.move(part, store, StandardCopyOption.ATOMIC_MOVE, StandardCopyOption.REPLACE_EXISTING);
  }

  private static String fingerprint(X509Certificate certificate) {
    try {
      return HexFormat.ofDelimiter(":")
          .withUpperCase()
          .formatHex(MessageDigest.getInstance("SHA-256").digest(certificate.getEncoded()));
    } catch (GeneralSecurityException e) {
      throw new IllegalStateException(e);
    }
  }
}
