package stativex;

import org.testng.ITestResult;
import org.testng.TestListenerAdapter;
import org.testng.TestNG;

/** Runs test classes in a process of its own and says how they ended: only a failing assertion shows that a fault is noticed. */
public final class FaultRun {
    static final int ASSERTION_FAILED = 3;
    static final int FAILED_OTHERWISE = 4;

    private FaultRun() {}

    /** Ends at the first class that notices. @param arguments names of test classes with commas between them */
    public static void main(String[] arguments) throws ClassNotFoundException {
        boolean otherwise = false;
        for (String name : arguments[0].split(",")) {
            TestNG tests = new TestNG(false);
            TestListenerAdapter results = new TestListenerAdapter();
            tests.addListener(results);
            tests.setTestClasses(new Class<?>[]{Class.forName(name)});
            tests.run();
            System.out.println(name + " failed: " + results.getFailedTests());
            if (results.getFailedTests().stream().map(ITestResult::getThrowable)
                    .anyMatch(AssertionError.class::isInstance)) {
                System.exit(ASSERTION_FAILED);
            }
            otherwise |= tests.hasFailure() || tests.hasSkip() || results.getPassedTests().isEmpty();
        }
        System.exit(otherwise ? FAILED_OTHERWISE : 0);
    }
}
