package rovnik.server.config;

import com.zaxxer.hikari.HikariDataSource;
import com.zaxxer.hikari.SQLExceptionOverride;
import java.sql.SQLException;
import java.util.Set;
import javax.sql.DataSource;
import org.h2.api.ErrorCode;
import org.h2.mvstore.MVStoreException;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.stereotype.Component;
import org.springframework.transaction.TransactionSystemException;

/**
 * A database that could not write closes itself, and its connections with it, though these look
 * alive. They are thrown away, so that the next one opens the database again.
 */
@Component
class ClosedDatabase {
  private static final Logger LOG = LoggerFactory.getLogger(ClosedDatabase.class);
  private static final Set<Integer> CLOSED =
      Set.of(ErrorCode.DATABASE_IS_CLOSED, ErrorCode.DATABASE_CALLED_AT_SHUTDOWN);
  private static final long BETWEEN_NANOS = 10_000_000_000L;

  private final DataSource database;
  private final Space space;
  private long nextLogNanos = System.nanoTime();

  ClosedDatabase(DataSource database, Space space) {
    this.database = database;
    this.space = space;
  }

  /** True if this was the database closing, or having closed. */
  static boolean is(Throwable failure) {
    for (Throwable cause = failure; cause != null; cause = cause.getCause()) {
      if (cause instanceof MVStoreException
          || cause instanceof TransactionSystemException t && is(t.getApplicationException())
          || cause instanceof SQLException s && CLOSED.contains(s.getErrorCode())) {
        return true;
      }
    }
    return false;
  }

  /** Throws the dead connections away; returns what to say. */
  String reopen(Throwable failure) {
    if (database instanceof HikariDataSource pool && pool.getHikariPoolMXBean() != null) {
      pool.getHikariPoolMXBean().softEvictConnections();
    }
    String sentence =
        space.low()
            ? "The disk of the data folder is full, and the database has closed; nothing was"
                + " changed. Make room: it opens again by itself."
            : "The database had closed and is opened again; nothing was changed. Try once more.";
    synchronized (this) {
      if (System.nanoTime() >= nextLogNanos) {
        nextLogNanos = System.nanoTime() + BETWEEN_NANOS;
        LOG.error("{} ({})", sentence, root(failure).getMessage());
      }
    }
    return sentence;
  }

  private static Throwable root(Throwable failure) {
    Throwable root = failure;
    while (root.getCause() != null) {
      root = root.getCause();
    }
    return root;
  }

  /** Tells the pool which of its connections are dead. */
  public static final class Evict implements SQLExceptionOverride {
    @java.lang.Override
    public Override adjudicate(SQLException e) {
      return is(e) ? Override.MUST_EVICT : Override.CONTINUE_EVICT;
    }
  }
}
