package stativex.files;

import com.networknt.schema.Error;
import com.networknt.schema.InputFormat;
import com.networknt.schema.Schema;
import com.networknt.schema.SchemaRegistry;
import com.networknt.schema.SpecificationVersion;
import java.util.EnumMap;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;
import tools.jackson.databind.JsonNode;

/** The published schemas (JSON Schema 2020-12) and what they say about a document, in one clear sentence. */
public final class Schemas {
    /** Kinds of documents. */
    public enum Kind {
        CONTRACT("contract"), ACCOUNT("account"), RULEBOOK("rulebook"), STRATEGY("strategy"), EXIT_PLAN("exit-plan");

        private final String file;

        Kind(String file) {
            this.file = file;
        }

        /** File name of its schema. */
        public String schemaFile() {
            return file + ".schema.json";
        }

        /** The word in the document's {@code document} field. */
        public String word() {
            return file.replace('-', ' ');
        }
    }

    private static final SchemaRegistry REGISTRY = SchemaRegistry
            .withDefaultDialect(SpecificationVersion.DRAFT_2020_12);
    private static final Map<Kind, Schema> SCHEMAS = new EnumMap<>(Kind.class);

    private Schemas() {}

    /** The text of a schema, as published. */
    public static String text(Kind kind) {
        return Json.Text.resource(Schemas.class, "schema/" + kind.schemaFile());
    }

    /** @throws BadInput about the first place that does not follow the schema */
    static void check(Kind kind, JsonNode document, String file) {
        List<BadInput> problems = problems(kind, document, file);
        if (!problems.isEmpty()) {
            throw problems.getFirst();
        }
    }

    /** Every place that does not follow the schema. */
    static List<BadInput> problems(Kind kind, JsonNode document, String file) {
        Schema schema;
        synchronized (SCHEMAS) {
            schema = SCHEMAS.computeIfAbsent(kind, k -> REGISTRY.getSchema(text(k), InputFormat.JSON));
        }
        return schema.validate(document).stream().map(error -> problem(error, document, file)).toList();
    }

    private static BadInput problem(Error error, JsonNode document, String file) {
        String pointer = error.getInstanceLocation().toString();
        String found = Causes.found(document.at(pointer).toString());
        String path = path(pointer);
        JsonNode rule = error.getSchemaNode();
        return switch (error.getKeyword()) {
            case "additionalProperties", "unevaluatedProperties" ->
                BadInput.at(file, join(path, error.getProperty()), "unknown field");
            case "required" ->
                BadInput.at(file, path, "expected the field \"" + error.getProperty() + "\", found none");
            case "type" -> BadInput.at(file, path, "expected " + articles(rule) + ", found " + found);
            case "const" -> BadInput.at(file, path, "expected " + rule + ", found " + found);
            case "enum" -> BadInput.at(file, path, "expected one of " + rule + ", found " + found);
            case "minimum" -> BadInput.at(file, path, "expected " + rule + " or more, found " + found);
            case "maximum" -> BadInput.at(file, path, "expected " + rule + " or less, found " + found);
            case "exclusiveMinimum" -> BadInput.at(file, path, "expected more than " + rule + ", found " + found);
            case "pattern" -> BadInput.at(file, path,
                    "expected a name of letters, digits and _, not beginning with a digit, found " + found);
            default -> BadInput.at(file, path, Causes.oneLine(error.getMessage()) + ", found " + found);
        };
    }

    private static String articles(JsonNode types) {
        return types.isArray()
                ? types.valueStream().map(type -> article(type.asString())).collect(Collectors.joining(" or "))
                : article(types.asString());
    }

    private static String article(String type) {
        return switch (type) {
            case "object" -> "an object {…}";
            case "array" -> "a list […]";
            case "integer" -> "a whole number";
            case "string" -> "a text in quotes";
            case "boolean" -> "true or false";
            default -> "a " + type;
        };
    }

    private static String join(String path, String name) {
        return path + "." + name;
    }

    /** A JSON pointer as a path: {@code /targets/0/ticks} is {@code $.targets[0].ticks}. */
    private static String path(String pointer) {
        StringBuilder path = new StringBuilder("$");
        for (String part : pointer.split("/")) {
            if (part.matches("[0-9]+")) {
                path.append('[').append(part).append(']');
            } else if (!part.isEmpty()) {
                path.append('.').append(part);
            }
        }
        return path.toString();
    }
}
