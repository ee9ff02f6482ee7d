package stativex.files;

import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.math.BigDecimal;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
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

    private static final String MARK = "\uFEFF";
    private static final Pattern TOKEN = Pattern.compile("'([^']{61,})'");
    /** Digits before and behind the point of a number. */
    private static final int DIGITS = 100;

    private Json() {}

    /** @throws BadInput with line and column */
    public static JsonNode parse(String text, String file) {
        try {
            JsonNode tree = MAPPER.readTree(text.startsWith(MARK) ? text.substring(1) : text);
            if (tree.isMissingNode()) {
                throw new BadInput(file + ": expected a JSON document, found an empty file");
            }
            checkValues(tree, "$", file);
            return tree;
        } catch (JacksonException e) {
            var place = e.getLocation();
            String where = place == null ? "" : ", line " + place.getLineNr() + ", column " + place.getColumnNr();
            throw new BadInput(file + where + ": expected JSON: " + words(e.getOriginalMessage()), e);
        }
    }

    /** What the parser says, on one line, without its own names for things and with found words cut. */
    private static String words(String said) {
        String line = Causes.oneLine(said).replaceAll(" *\\(?,? ?from `[^`]*`\\)?", "").replaceAll("`[^`]*`", "a part")
                .replaceAll("\\s+", " ");
        Matcher token = TOKEN.matcher(line);
        return token.find()
                ? token.replaceFirst(Matcher.quoteReplacement("'" + Causes.found(token.group(1)) + "'"))
                : line;
    }

    /** Texts are whole characters, numbers of a size that can be reckoned with. */
    private static void checkValues(JsonNode node, String path, String file) {
        if (node.isString()) {
            checkText(node.asString(), path, file);
        } else if (node.isNumber()) {
            BigDecimal value = node.decimalValue();
            if (Math.abs((long) value.scale()) > DIGITS || value.precision() > DIGITS) {
                throw BadInput.at(file, path, "expected a number of at most " + DIGITS + " digits, found "
                        + Causes.found(node.toString()));
            }
        } else if (node.isObject()) {
            node.properties().forEach(field -> {
                checkText(field.getKey(), path, file);
                checkValues(field.getValue(), path + "." + field.getKey(), file);
            });
        } else {
            for (int i = 0; i < node.size(); i++) {
                checkValues(node.get(i), path + "[" + i + "]", file);
            }
        }
    }

    private static void checkText(String text, String path, String file) {
        if (text.codePoints().anyMatch(c -> Character.getType(c) == Character.SURROGATE)) {
            throw BadInput.at(file, path, "expected text of whole characters, found half of one in \""
                    + Causes.found(text) + "\"");
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
        /** Documents longer than this are none, bytes. */
        private static final long LONGEST = 16_000_000;

        private Text() {}

        static String read(Path file) {
            return read(file, LONGEST);
        }

        static String read(Path file, long longest) {
            try {
                long length = Plain.check(file);
                if (length > longest) {
                    throw new BadInput(file + ": expected at most " + longest / 1_000_000 + " MB, found "
                            + length / 1_000_000);
                }
                return Files.readString(file, StandardCharsets.UTF_8);
            } catch (java.nio.file.NoSuchFileException e) {
                throw new BadInput(file + ": no such file", e);
            } catch (java.nio.charset.CharacterCodingException e) {
                throw new BadInput(file + ": expected UTF-8 text", e);
            } catch (IOException e) {
                throw new BadInput(file + ": cannot be read: " + Causes.of(e), e);
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
