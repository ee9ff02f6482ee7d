package stativex.files;

import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import tools.jackson.core.JacksonException;
import tools.jackson.core.StreamReadFeature;
import tools.jackson.databind.DeserializationFeature;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.SerializationFeature;
import tools.jackson.databind.json.JsonMapper;

/** Reads and writes JSON text: no duplicate keys, nothing after the end. */
public final class Json {
    static final JsonMapper MAPPER = JsonMapper.builder().enable(StreamReadFeature.STRICT_DUPLICATE_DETECTION)
            .enable(DeserializationFeature.FAIL_ON_TRAILING_TOKENS)
            .enable(DeserializationFeature.USE_BIG_DECIMAL_FOR_FLOATS).build();
    private static final JsonMapper PRETTY = MAPPER.rebuild().enable(SerializationFeature.INDENT_OUTPUT).build();

    private Json() {}

    /** @throws BadInput with line and column */
    public static JsonNode parse(String text, String file) {
        try {
            JsonNode tree = MAPPER.readTree(text);
            if (tree.isMissingNode()) {
                throw new BadInput(file + ": expected a JSON document, found an empty file");
            }
            return tree;
        } catch (JacksonException e) {
            var place = e.getLocation();
            String where = place == null ? "" : ", line " + place.getLineNr() + ", column " + place.getColumnNr();
            throw new BadInput(file + where + ": expected JSON: " + e.getOriginalMessage().replaceAll("\\s+", " "), e);
        }
    }

    public static JsonNode read(Path file) {
        return parse(Text.read(file), file.toString());
    }

    public static String pretty(Object value) {
        return PRETTY.writeValueAsString(value) + "\n";
    }

    public static String line(Object value) {
        return MAPPER.writeValueAsString(value);
    }

    /** A text file as a whole. */
    static final class Text {
        private Text() {}

        static String read(Path file) {
            try {
                return Files.readString(file, StandardCharsets.UTF_8);
            } catch (java.nio.file.NoSuchFileException e) {
                throw new BadInput(file + ": no such file", e);
            } catch (java.nio.charset.CharacterCodingException e) {
                throw new BadInput(file + ": expected UTF-8 text", e);
            } catch (IOException e) {
                throw new BadInput(file + ": cannot be read: " + e.getMessage(), e);
            }
        }

        static String resource(Class<?> beside, String name) {
            try (InputStream in = beside.getResourceAsStream(name)) {
                if (in == null) {
                    throw new IllegalStateException("resource " + name + " is missing from the build");
                }
                return new String(in.readAllBytes(), StandardCharsets.UTF_8);
            } catch (IOException e) {
                throw new UncheckedIOException(e);
            }
        }
    }
}
