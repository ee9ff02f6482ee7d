package stativex.cluster;

import java.io.File;
import java.io.IOException;
import java.io.Serializable;
import java.net.InetSocketAddress;
import java.net.Socket;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Arrays;
import java.util.List;
import java.util.function.BiConsumer;
import java.util.function.BooleanSupplier;
import java.util.jar.JarEntry;
import java.util.jar.JarOutputStream;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Stream;
import org.apache.spark.SparkConf;
import org.apache.spark.api.java.JavaRDD;
import org.apache.spark.api.java.JavaSparkContext;
import org.apache.spark.broadcast.Broadcast;
import scala.Function1;
import scala.Function2;
import scala.collection.Iterator;
import scala.reflect.ClassTag$;
import scala.runtime.BoxedUnit;
import stativex.files.BadInput;
import stativex.files.SearchElsewhere;
import stativex.files.SearchSpec;
import stativex.files.VariantTrials;
import stativex.market.Tape;

/**
 * Variants on a cluster of Apache Spark. Work is cut into blocks of variants; a block whose machine is lost is tried again on another one,
 * and comes to the same. Documents and tape go out once; what comes back is a few figures for each variant.
 *
 * <p>Caveats: settings of Spark can be given as system properties that begin with {@code spark.}; our own classes go along as jars.
 */
public final class SparkMachines implements SearchElsewhere.Machines {
    /** Variants of a block. */
    private static final int BLOCK = 8;
    private static final Pattern MASTER = Pattern.compile("spark://([^:/]+):([0-9]{1,5})|local\\[[0-9*]+\\]");
    /** Milliseconds. */
    private static final int PATIENCE = 5_000;
    private static final int WAITS = 120;

    private final JavaSparkContext context;
    private final Broadcast<Parcel> parcel;

    /** Asks for machines. @throws BadInput when nobody answers */
    static SparkMachines at(String master, SearchSpec spec, Tape tape) {
        Matcher url = MASTER.matcher(master);
        if (!url.matches()) {
            throw new BadInput("--on: expected spark://HOST:PORT, found " + master);
        }
        if (url.group(1) != null) {
            answers(url.group(1), Integer.parseInt(url.group(2)), master);
        }
        return new SparkMachines(master, new Parcel(spec, tape));
    }

    private static void answers(String host, int port, String master) {
        try (Socket socket = new Socket()) {
            socket.connect(new InetSocketAddress(host, port), PATIENCE);
        } catch (IOException | IllegalArgumentException e) {
            throw new BadInput("--on: nobody answers at " + master + ": " + e.getMessage(), e);
        }
    }

    private SparkMachines(String master, Parcel sent) {
        SparkConf conf = new SparkConf().setMaster(master).setAppName("Stativex search")
                .setIfMissing("spark.ui.enabled", "false")
                // a block that is lost with its machine is tried again; one that fails by itself is a fault of ours
                .setIfMissing("spark.task.maxFailures", "8");
        List<String> own = Arrays.stream(System.getProperty("java.class.path").split(File.pathSeparator))
                .filter(SparkMachines::isOurs).toList();
        // all of them go along: one loader of the executor must see them all
        conf.setJars(own.stream().map(path -> path.endsWith(".jar") ? path : jar(Path.of(path)))
                .toArray(String[]::new));
        context = new JavaSparkContext(conf);
        if (!master.startsWith("local")) {
            waitForOne(master);
        }
        parcel = context.broadcast(sent);
    }

    /** The classes of a folder as a jar, for as long as this process lives. */
    private static String jar(Path folder) {
        try {
            Path jar = Files.createTempFile("stativex-classes", ".jar");
            jar.toFile().deleteOnExit();
            try (JarOutputStream out = new JarOutputStream(Files.newOutputStream(jar));
                    Stream<Path> files = Files.walk(folder)) {
                for (Path file : files.filter(Files::isRegularFile).sorted().toList()) {
                    out.putNextEntry(new JarEntry(folder.relativize(file).toString().replace(File.separatorChar, '/')));
                    Files.copy(file, out);
                    out.closeEntry();
                }
            }
            return jar.toString();
        } catch (IOException e) {
            throw new BadInput(folder + ": cannot be sent: " + e.getMessage(), e);
        }
    }

    /** A master may have no machine with as much memory as is asked for: that is said instead of waited for. */
    private void waitForOne(String master) {
        // the driver itself is listed as well
        for (int i = 0; context.sc().getExecutorMemoryStatus().size() < 2; i++) {
            if (i == WAITS) {
                context.close();
                throw new BadInput("--on: " + master
                        + " has given no machine within a minute: has a worker the cores and"
                        + " the memory (STATIVEX_SPARK=-Dspark.executor.memory=…, 1g if it is not set) that are asked for?");
            }
            try {
                Thread.sleep(PATIENCE / 10);
            } catch (InterruptedException e) {
                Thread.currentThread().interrupt();
                throw new BadInput("interrupted", e);
            }
        }
    }

    /** Everything that Spark's own distribution does not bring. */
    static boolean isOurs(String path) {
        String name = new File(path).getName();
        return new File(path).isDirectory() || name.matches(
                "(stativex|core|files|cluster|demo|link|cli|jackson-(core|databind)-3|json-schema|itu|fastcsv|ical4j|duckdb|antlr4|picocli|slf4j-nop).*");
    }

    @Override
    public void work(List<VariantTrials.Task> tasks, BiConsumer<VariantTrials.Task, VariantTrials.Outcome> done,
            BooleanSupplier stop) {
        List<Block> blocks = Block.of(tasks, BLOCK);
        if (blocks.isEmpty()) {
            return;
        }
        JavaRDD<Block> spread = context.parallelize(blocks, blocks.size());
        Broadcast<Parcel> sent = parcel;
        Function1<Iterator<Block>, Sent[]> work = (Function1<Iterator<Block>, Sent[]> & Serializable) some -> some
                .next().work(sent.value());
        // on one thread of the driver, block by block as they come
        Function2<Object, Sent[], BoxedUnit> take = (block, outcomes) -> {
            for (Sent outcome : outcomes) {
                VariantTrials.Task task = tasks.get(outcome.place());
                done.accept(task, outcome.outcome(task));
            }
            if (stop.getAsBoolean()) {
                context.cancelAllJobs();
            }
            return BoxedUnit.UNIT;
        };
        try {
            context.sc().runJob(spread.rdd(), work, take, ClassTag$.MODULE$.<Sent[]>apply(Sent[].class));
        } catch (Exception e) {
            // Spark throws what Java knows nothing of
            if (!stop.getAsBoolean()) {
                throw new BadInput("the cluster gave up: " + reason(e), e);
            }
        }
    }

    private static String reason(Exception e) {
        String said = e.getMessage() == null ? e.toString() : e.getMessage();
        return said.lines().findFirst().orElse("").strip();
    }

    @Override
    public void close() {
        context.close();
    }
}
