package stativex;

import java.util.Arrays;
import org.testng.ITestResult;
import org.testng.TestListenerAdapter;
import org.testng.TestNG;

/** Runs test classes in a process of its own and says how they ended: only a failing assertion shows that a fault is noticed. */
public final class FaultRun {
    static final int ASSERTION_FAILED = 3;
    static final int FAILED_OTHERWISE = 4;

    private FaultRun() {}

    /** @param arguments names of test classes with commas between them */
    public static void main(String[] arguments) throws ClassNotFoundException {
        TestNG tests = new TestNG(false);
        TestListenerAdapter results = new TestListenerAdapter();
        tests.addListener(results);
        String[] names = arguments[0].split(",");
        Class<?>[] classes = new Class<?>[names.length];
        for (int i = 0; i < names.length; i++) {
            classes[i] = Class.forName(names[i]);
        }
        tests.setTestClasses(classes);
        tests.run();
        boolean asserted = results.getFailedTests().stream().map(ITestResult::getThrowable)
                .anyMatch(AssertionError.class::isInstance);
        boolean ran = !results.getPassedTests().isEmpty();
        System.out.println(Arrays.toString(names) + " failed: " + results.getFailedTests());
        System.exit(asserted
                ? ASSERTION_FAILED
                : tests.hasFailure() || tests.hasSkip() || !ran ? FAILED_OTHERWISE : 0);
    }
}
