package stativex.files;

import static org.testng.Assert.assertEquals;

import java.nio.file.Path;
import org.testng.annotations.Test;

public class DataFolderTest {
    private static final Path HOME = Path.of("/home/ada");

    /** XDG Base Directory Specification, "Environment variables". */
    @Test
    public void followsThePlatform() {
        assertEquals(DataFolder.path("/own", "/xdg", null, "Linux", HOME), Path.of("/own"));
        assertEquals(DataFolder.path(null, "/xdg", null, "Linux", HOME), Path.of("/xdg/stativex"));
        assertEquals(DataFolder.path("", "relative", null, "Linux", HOME), Path.of("/home/ada/.local/share/stativex"));
        assertEquals(DataFolder.path(null, null, null, "Mac OS X", HOME),
                Path.of("/home/ada/Library/Application Support/Stativex"));
        assertEquals(DataFolder.path(null, null, null, "Windows 11", HOME),
                Path.of("/home/ada/AppData/Local/Stativex"));
    }
}
