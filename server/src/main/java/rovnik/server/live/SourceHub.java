package rovnik.server.live;

/** Finds sources of one family by their name, such as "i3". */
public interface SourceHub {
  boolean knows(String source);

  SharedSource session(String source);
}
