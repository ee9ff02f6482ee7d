package stativex.link;

import static org.testng.Assert.assertTrue;

import org.testng.annotations.Test;
import stativex.demo.Demo;
import stativex.files.SessionFile;

/** The invented day before the real one sends orders enough, and touches nothing else. */
public class WarmUpTest {
    @Test
    public void ordersAreWorkedByTheHundred() {
        SessionFile.Set demo = Demo.documents();
        SessionFile.Set own = new SessionFile.Set(demo.contract(), demo.account(), demo.strategies().stream()
                .filter(one -> one.value().contract().equals(demo.contract().value().symbol())
                        && one.value().signals().others(demo.contract().value()).isEmpty())
                .toList());
        int orders = WarmUp.run(own);
        assertTrue(orders > 200, orders + " orders");
    }
}
