package stativex;

import static com.tngtech.archunit.lang.syntax.ArchRuleDefinition.noClasses;

import com.tngtech.archunit.core.domain.JavaClasses;
import com.tngtech.archunit.core.importer.ClassFileImporter;
import com.tngtech.archunit.library.Architectures;
import com.tngtech.archunit.library.dependencies.SlicesRuleDefinition;
import java.nio.file.Path;
import org.testng.annotations.Test;

/** What may never be in the core. */
public class ArchitectureTest {
    private static final JavaClasses CORE = new ClassFileImporter().importPath(Path.of("target", "classes"));

    @Test
    public void theCoreKnowsNoScreenFileThreadOrWallClock() {
        noClasses().should().dependOnClassesThat()
                .resideInAnyPackage("javafx..", "java.nio.file..", "java.net..", "java.util.concurrent..", "java.sql..")
                .orShould().dependOnClassesThat().haveNameMatching("java\\.io\\.(File|Print|Reader|Writer|Random).*")
                .orShould().dependOnClassesThat()
                .haveNameMatching("java\\.lang\\.(Thread|ProcessHandle|Runtime|Process)")
                .orShould().dependOnClassesThat().haveNameMatching("java\\.util\\.(Random|Timer).*")
                .orShould().callMethod(System.class, "nanoTime").orShould()
                .callMethod(System.class, "currentTimeMillis")
                .orShould().callMethod(java.time.Instant.class, "now").orShould().callMethod(Math.class, "random")
                .check(CORE);
    }

    @Test
    public void packagesPointOnlyDownTheLine() {
        Architectures.layeredArchitecture().consideringOnlyDependenciesInLayers().layer("market")
                .definedBy("stativex.market").layer("study").definedBy("stativex.study").layer("rule")
                .definedBy("stativex.rule..").layer("exit").definedBy("stativex.exit").layer("order")
                .definedBy("stativex.order").layer("account").definedBy("stativex.account").layer("interlock")
                .definedBy("stativex.interlock").layer("engine").definedBy("stativex.engine").layer("trial")
                .definedBy("stativex.trial").whereLayer("trial").mayNotBeAccessedByAnyLayer().whereLayer("engine")
                .mayOnlyBeAccessedByLayers("trial").whereLayer("interlock").mayOnlyBeAccessedByLayers("engine", "trial")
                .whereLayer("rule").mayOnlyBeAccessedByLayers("engine", "trial").whereLayer("study")
                .mayOnlyBeAccessedByLayers("rule", "engine", "trial").whereLayer("order")
                .mayOnlyBeAccessedByLayers("account", "interlock", "engine", "trial").check(CORE);
    }

    @Test
    public void thereAreNoCycles() {
        SlicesRuleDefinition.slices().matching("stativex.(*)..").should().beFreeOfCycles().check(CORE);
    }
}
