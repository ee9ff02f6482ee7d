package stativex.files;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;
import static org.testng.Assert.expectThrows;

import java.nio.file.Path;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalInt;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;
import stativex.account.Account;
import stativex.account.ContractLimits;
import stativex.account.DayLimits;
import stativex.account.ForThePerson;
import stativex.account.GiveBack;
import stativex.account.Guard;
import stativex.account.LosingRun;
import stativex.account.OwnLimits;
import stativex.engine.Command;
import stativex.engine.Mode;
import stativex.engine.Strategy;
import stativex.files.tape.TickCsv;
import stativex.market.Money;
import stativex.market.Rolls;
import stativex.market.Side;
import stativex.market.Tape;
import stativex.order.Order;
import stativex.order.Owner;
import stativex.order.Terms;
import stativex.trial.Inputs;

/** Commands of the person and rolls as lines of a session file: written, they read as they were. */
public class CommandLineTest {
    private final Path folder = Texts.folder("1284.00", "1284.25", "1284.50", "1285.00");
    private final SessionFile.Set documents = Texts.documents(folder);
    private final Tape tape = TickCsv.read(folder.resolve("ticks.csv"), documents.contract().value());
    private final Inputs inputs = documents.inputs(tape, Terms.DEFAULT);
    private final List<String> names = inputs.strategies().stream().map(Strategy::name).toList();

    private Command again(Map<String, Object> line) {
        return CommandLine.read(Field.root("session", Json.parse(Json.line(line), "session")), inputs);
    }

    @Test
    public void everyCommandReadsAsItWasWritten() {
        Owner strategy = new Owner.Strategy(0);
        for (Command command : List.of(new Command.SetMode(0, Mode.WATCHING), new Command.SetSide(0, Side.SHORT, false),
                new Command.SetOnce(0, true), new Command.Breakeven(strategy), new Command.Breakeven(Owner.PERSON),
                new Command.HalfOff(Owner.PERSON), new Command.Flatten(0), new Command.FlatAndLock(),
                new Command.Enter(Side.LONG, Order.Type.MARKET, 3, Tape.NONE, Tape.NONE, OptionalInt.of(0), true),
                new Command.Enter(Side.SHORT, Order.Type.STOP_LIMIT, 1, 5140, 5138, OptionalInt.empty(), false),
                new Command.Cancel(7), new Command.Move(9, -12), new Command.HandOver(strategy, Owner.PERSON),
                new Command.HandOver(Owner.PERSON, strategy), new Command.AttachPlan(0),
                new Command.ChangePlan(0, documents.strategies().getFirst().value().plan(), true),
                new Command.ChangeLimits(inputs.account().own()), new Command.ChangeLimits(limits()))) {
            Map<String, Object> line = new LinkedHashMap<>();
            CommandLine.write(command, names, line);
            assertEquals(again(line), command);
        }
    }

    /** Of every kind one. */
    private OwnLimits limits() {
        Guard guard = new Guard(true, Money.parse("12.50"), 2);
        Account.DayLoss loss = new Account.DayLoss(Money.parse("520"), guard);
        ContractLimits contract = new ContractLimits(new DayLimits(Optional.of(loss), Optional.of(Money.parse("80"))),
                Optional.of(4), Optional.of(2));
        return new OwnLimits(Optional.of(loss), Optional.of(Money.parse("1040")),
                Optional.of(new GiveBack(Money.parse("100"), Money.parse("300"), Guard.OFF)),
                Optional.of(new LosingRun(3, OptionalInt.of(20))), Optional.of(9),
                inputs.account().own().quietTimes(), Map.of(inputs.contract().symbol(), contract),
                new ForThePerson(Map.of(ForThePerson.Of.QUIET_TIME, ForThePerson.Response.WARN,
                        ForThePerson.Of.OWN_LINES, ForThePerson.Response.STOP), true,
                        new ForThePerson.Near(30, 15)));
    }

    @DataProvider
    public Object[][] wrong() {
        return new Object[][]{
                {"{\"command\":\"enter\",\"side\":\"long\",\"order\":\"hope\",\"quantity\":1}", "stop-limit"},
                {"{\"command\":\"enter\",\"side\":\"long\",\"order\":\"limit\",\"quantity\":1}", "priceTicks"},
                {"{\"command\":\"enter\",\"side\":\"long\",\"order\":\"market\",\"quantity\":0}", "from 1 to"},
                {"{\"command\":\"move\",\"order\":1,\"priceTicks\":9000000000000}", "from -2000000000 to"},
                {"{\"command\":\"hand over\",\"from\":\"nobody\"}", "a strategy of the session"},
                {"{\"command\":\"attach plan\",\"strategy\":\"nobody\"}", "a strategy of the session"},
                {"{\"command\":\"change limits\",\"limits\":{\"ownOrders\":{\"quietTime\":\"pray\"}}}", "stop"},
                {"{\"command\":\"change limits\",\"limits\":{\"near\":{\"percent\":20,\"stopOuts\":\"1.25\"}}}",
                        "one decimal"},
                {"{\"command\":\"dance\"}", "a command"}};
    }

    @Test(dataProvider = "wrong")
    public void whatIsWrongIsSaidWithItsPlace(String line, String words) {
        BadInput e = expectThrows(BadInput.class,
                () -> CommandLine.read(Field.root("session", Json.parse(line, "session")), inputs));
        assertTrue(e.getMessage().contains(words) && e.getMessage().contains("$"), e.getMessage());
    }

    @Test
    public void rollsReadAsTheyWereWritten() {
        Rolls.Change change = new Rolls.Change("next", java.time.LocalDate.of(2026, 9, 22), tape.time(2), 2, 16, 5152,
                Optional.of(java.time.LocalDate.of(2026, 12, 18)));
        Rolls rolls = Rolls.of(tape, "first", Optional.empty(), List.of(change), 60_000_000_000L);
        Map<String, Object> header = new LinkedHashMap<>();
        RollLines.write(rolls, header);
        Rolls read = RollLines.read(Field.root("session", Json.parse(Json.line(header), "session")), tape);
        assertEquals(read.changes(), rolls.changes());
        assertEquals(read.lead(), rolls.lead());
        assertEquals(read.legs().getLast().seen().price(0), tape.price(0) + 16);
        assertEquals(RollLines.read(Field.root("session", Json.parse("{}", "session")), tape), Rolls.NONE);
    }
}
