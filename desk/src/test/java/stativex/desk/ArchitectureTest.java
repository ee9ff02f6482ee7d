package stativex.desk;

import com.tngtech.archunit.core.importer.ClassFileImporter;
import com.tngtech.archunit.library.dependencies.SlicesRuleDefinition;
import java.nio.file.Path;
import org.testng.annotations.Test;

/** Packages of the desk point one way. */
public class ArchitectureTest {
    @Test
    public void thereAreNoCycles() {
        SlicesRuleDefinition.slices().matching("stativex.desk.(*)..").should().beFreeOfCycles()
                .check(new ClassFileImporter().importPath(Path.of("target", "classes")));
    }
}
