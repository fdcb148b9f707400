package rovnik.server.bench;

import java.net.InetAddress;
import java.net.UnknownHostException;
import java.util.ArrayList;
import java.util.List;
import org.springframework.security.web.util.matcher.IpAddressMatcher;
import org.springframework.stereotype.Component;
import rovnik.core.Refusal;
import rovnik.server.config.ServerSettings;

/** Where instruments may be: whoever can add one could otherwise reach any machine from here. */
@Component
class AllowedAddresses {
  private final List<String> named = new ArrayList<>();
  private final List<IpAddressMatcher> networks = new ArrayList<>();

  AllowedAddresses(ServerSettings settings) {
    for (String one : settings.instrumentAddresses()) {
      if (one.matches("[\\d.]+(/\\d+)?|[\\da-fA-F:]*:[\\da-fA-F:.]*(/\\d+)?")) {
        networks.add(new IpAddressMatcher(one));
      } else {
        named.add(one);
      }
    }
  }

  /** Refuses a host that is not on the list. */
  void check(String host) {
    if (named.isEmpty() && networks.isEmpty() || named.stream().anyMatch(host::equalsIgnoreCase)) {
      return;
    }
    try {
      String address = InetAddress.getByName(host).getHostAddress();
      if (networks.stream().anyMatch(n -> n.matches(address))) {
        return;
      }
    } catch (UnknownHostException e) {
      // what has no address is on no list
    }
    throw new Refusal(
        "host",
        "This Rovnik may not reach "
            + host
            + ". Who runs it can add it to rovnik.instrument-addresses.");
  }
}
