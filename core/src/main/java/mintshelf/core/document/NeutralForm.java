package mintshelf.core.document;

import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Stream;
import mintshelf.core.content.ContentKind;

/** The open forms in which a file can be laid beside one that only its own program reads; the one that shows most comes first. */
public enum NeutralForm {
    DXF("DXF drawing", "dxf"),
    STEP("STEP model", "stp"),
    THREE_MF("3MF model", "3mf"),
    STL("STL model", "stl"),
    PDF("PDF", "pdf"),
    SVG("SVG picture", "svg"),
    PNG("PNG picture", "png"),
    JPEG("JPEG picture", "jpg"),
    TIFF("TIFF picture", "tif");

    /** Texts that everybody reads as they are. */
    private static final Set<String> PLAIN = Set.of(
            "txt", "md", "csv", "tsv", "json", "xml", "html", "htm", "log", "ini", "yaml", "yml", "eml", "rtf", "tex");

    /** Meshes are read by the viewer of models, whatever program wrote them. */
    private static final Set<String> MESHES = Set.of("stl", "3mf", "gltf", "glb", "obj");

    private final String words;
    private final String ending;

    NeutralForm(String words, String ending) {
        this.words = words;
        this.ending = ending;
    }

    public String words() {
        return words;
    }

    /** How its files end, where the file itself says nothing else. */
    public String ending() {
        return ending;
    }

    /** The form of a file, told from its content; of meshes, which have no mark, from its name. Nothing for what is no open form. */
    public static Optional<NeutralForm> of(ContentKind kind, FileName name) {
        return switch (kind) {
            case DXF -> Optional.of(DXF);
            case STEP -> Optional.of(STEP);
            case PDF -> Optional.of(PDF);
            case SVG -> Optional.of(SVG);
            case PNG -> Optional.of(PNG);
            case JPEG -> Optional.of(JPEG);
            case TIFF -> Optional.of(TIFF);
            case ZIP -> ends(name, "3mf", THREE_MF);
            case TEXT, OTHER -> ends(name, "stl", STL);
            case GIF, OFFICE, EMPTY -> Optional.empty();
        };
    }

    private static Optional<NeutralForm> ends(FileName name, String ending, NeutralForm form) {
        return name.extension().equals(ending) ? Optional.of(form) : Optional.empty();
    }

    /** Whether a file is read as a mesh, as its name says. */
    public static boolean isMesh(FileName name) {
        return MESHES.contains(name.extension());
    }

    /** Endings of files that may lie beside one, as desks look for them. */
    public static List<String> endings() {
        return Stream.concat(Arrays.stream(values()).map(NeutralForm::ending), Stream.of("step", "jpeg", "tiff"))
                .toList();
    }

    /** Whether a file is drawn by nobody here, so that it is shown by what lies beside it. */
    public static boolean isWanted(ContentKind kind, FileName name) {
        if (isMesh(name)) return false;
        return switch (kind) {
            case OTHER, ZIP, OFFICE -> true;
            case TEXT -> !name.extension().isEmpty() && !PLAIN.contains(name.extension());
            default -> false;
        };
    }
}
