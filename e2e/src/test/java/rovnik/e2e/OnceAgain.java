package rovnik.e2e;

import java.lang.reflect.Constructor;
import java.lang.reflect.Method;
import org.testng.IAnnotationTransformer;
import org.testng.IRetryAnalyzer;
import org.testng.ITestResult;
import org.testng.annotations.ITestAnnotation;

/**
 * A test of the whole interface that fails is run once more, and says so on its own line: a
 * browser, a server and stand-ins on a busy machine sometimes lose a race that no user would see.
 * What fails twice is a failure.
 */
public final class OnceAgain implements IAnnotationTransformer {
  @Override
  @SuppressWarnings("rawtypes")
  public void transform(
      ITestAnnotation annotation, Class testClass, Constructor constructor, Method method) {
    annotation.setRetryAnalyzer(Retry.class);
  }

  /** One more attempt for each test. */
  public static final class Retry implements IRetryAnalyzer {
    private boolean tried;

    @Override
    public boolean retry(ITestResult result) {
      if (tried) {
        return false;
      }
      tried = true;
      System.err.println("RUN AGAIN: " + result.getName() + ": " + result.getThrowable());
      return true;
    }
  }
}
