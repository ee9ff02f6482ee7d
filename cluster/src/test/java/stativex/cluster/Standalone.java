package stativex.cluster;

import java.io.File;
import java.io.IOException;
import java.net.InetAddress;
import java.net.ServerSocket;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.concurrent.TimeUnit;

/** A real standalone master with its workers on loopback, each a process of its own. */
final class Standalone implements AutoCloseable {
    private final Path folder;
    private final int port;
    private final Process master;
    private final List<Process> workers = new ArrayList<>();

    Standalone(int count) throws IOException, InterruptedException {
        folder = Files.createTempDirectory("spark");
        Files.createFile(folder.resolve("RELEASE"));
        Path jars = Files.createDirectory(folder.resolve("jars"));
        for (String path : System.getProperty("java.class.path").split(File.pathSeparator)) {
            Path jar = Path.of(path);
            // ours come from the one that begins the search, as on a cluster that knows nothing of us
            if (!SparkMachines.isOurs(path) && !Files.exists(jars.resolve(jar.getFileName()))) {
                Files.createSymbolicLink(jars.resolve(jar.getFileName()), jar.toAbsolutePath());
            }
        }
        port = free();
        master = java("org.apache.spark.deploy.master.Master", "--host", "127.0.0.1", "--port", Integer.toString(port),
                "--webui-port", "0");
        waitFor();
        for (int i = 0; i < count; i++) {
            workers.add(java("org.apache.spark.deploy.worker.Worker", "--host", "127.0.0.1", "--cores", "1", "--memory",
                    "700m", "--webui-port", "0", "--work-dir", folder.resolve("work" + i).toString(), url()));
        }
    }

    private static int free() throws IOException {
        try (ServerSocket socket = new ServerSocket(0, 1, InetAddress.getLoopbackAddress())) {
            return socket.getLocalPort();
        }
    }

    private Process java(String main, String... arguments) throws IOException {
        List<String> command = new ArrayList<>(
                List.of(Path.of(System.getProperty("java.home"), "bin", "java").toString(),
                        "-Xmx256m", "-Dspark.master.rest.enabled=false", "-Dspark.master.ui.enabled=false"));
        java.lang.management.ManagementFactory.getRuntimeMXBean().getInputArguments().stream()
                .filter(option -> option.startsWith("--add-opens")).forEach(command::add);
        command.addAll(List.of("-cp", folder.resolve("jars") + "/*", main));
        command.addAll(Arrays.asList(arguments));
        ProcessBuilder builder = new ProcessBuilder(command).redirectErrorStream(true)
                .redirectOutput(folder.resolve(main.replaceFirst(".*\\.", "") + workers.size() + ".log").toFile());
        builder.environment().put("SPARK_HOME", folder.toString());
        builder.environment().put("SPARK_SCALA_VERSION", "2.13");
        builder.environment().put("SPARK_LOCAL_IP", "127.0.0.1");
        builder.environment().put("JAVA_HOME", System.getProperty("java.home"));
        return builder.start();
    }

    private void waitFor() throws InterruptedException {
        for (int i = 0; i < 600; i++) {
            try (java.net.Socket socket = new java.net.Socket("127.0.0.1", port)) {
                if (socket.isConnected()) {
                    return;
                }
            } catch (IOException e) {
                // not yet
                Thread.sleep(100);
            }
        }
        throw new IllegalStateException("the master did not begin");
    }

    String url() {
        return "spark://127.0.0.1:" + port;
    }

    /** Kills one of the executors that are at work. Returns whether there was one. */
    boolean killsAnExecutor() {
        return workers.stream().flatMap(worker -> worker.toHandle().descendants())
                .filter(process -> process.info().commandLine().or(() -> process.info().command()).orElse("")
                        .contains("java"))
                .findFirst().map(ProcessHandle::destroyForcibly).orElse(false);
    }

    @Override
    public void close() throws IOException {
        for (Process process : workers) {
            process.toHandle().descendants().forEach(ProcessHandle::destroyForcibly);
            process.destroyForcibly();
        }
        master.destroyForcibly();
        try {
            master.waitFor(10, TimeUnit.SECONDS);
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
        }
        try (var files = Files.walk(folder)) {
            files.sorted(java.util.Comparator.reverseOrder()).forEach(file -> file.toFile().delete());
        }
    }
}
