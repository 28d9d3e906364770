package mintshelf.core.document;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.Map;
import mintshelf.core.base.ContentHash;
import org.junit.jupiter.api.Test;

class FileNameTest {
    @Test
    void aPathKeepsItsLastPartOnly() {
        assertThat(FileName.of("../../etc/passwd").name()).isEqualTo("passwd");
        assertThat(FileName.of("C:\\work\\cone.dxf").name()).isEqualTo("cone.dxf");
        assertThat(FileName.of("..").name()).isEqualTo("unnamed");
        assertThat(FileName.of("a\u0000b\n.dxf").name()).isEqualTo("ab .dxf");
    }

    @Test
    void whatNoMachineTakesIsReplaced() {
        assertThat(FileName.of("a<b>|c?.dxf").name()).isEqualTo("a_b__c_.dxf");
        assertThat(FileName.of("CON.dxf").name()).isEqualTo("_CON.dxf");
        assertThat(FileName.of("plate. ").name()).isEqualTo("plate");
        assertThat(FileName.of(".hidden").name()).isEqualTo("hidden");
    }

    @Test
    void aLongNameKeepsItsExtension() {
        FileName name = FileName.of("x".repeat(400) + ".dxf");
        assertThat(name.name()).hasSizeLessThanOrEqualTo(180).endsWith(".dxf");
        assertThat(name.extension()).isEqualTo("dxf");
    }

    @Test
    void namesCompareWithoutCase() {
        assertThat(FileName.of("Cone.DXF").key())
                .isEqualTo(FileName.of("cone.dxf").key());
    }

    @Test
    void aDigestCoversContentAndFacts() {
        ContentHash content = ContentHash.compute(new byte[] {1});
        ContentHash digest = VersionDigest.of(content, Map.of("material", "316L"));
        assertThat(VersionDigest.of(content, Map.of("material", "316L"))).isEqualTo(digest);
        assertThat(VersionDigest.of(content, Map.of("material", "316"))).isNotEqualTo(digest);
        assertThat(VersionDigest.of(content, Map.of("materia", "l316L"))).isNotEqualTo(digest);
        assertThat(VersionDigest.of(ContentHash.compute(new byte[] {2}), Map.of("material", "316L")))
                .isNotEqualTo(digest);
    }

    @Test
    void aFolderIsNamedAsADiskCanNameIt() {
        for (String bad : new String[] {".", "..", "a/b", "a\\b", "con", "x:", "end.", "\u202e"}) {
            assertThat(FileName.folder("The name", bad).isGranted()).as(bad).isFalse();
        }
        for (String good : new String[] {"3000 Encoder head", "Ä & Ö (2)", "v1.2"}) {
            assertThat(FileName.folder("The name", good).isGranted()).as(good).isTrue();
        }
    }

    @Test
    void aPathLeadsNowhereElse() {
        assertThat(FileName.path("LS18 Staff reader/../evil.txt")).doesNotContain("..");
        assertThat(FileName.path("/etc//passwd")).isEqualTo("etc/passwd");
        assertThat(FileName.path("..")).isEqualTo("unnamed");
        assertThat(FileName.path("TG40/3000/plate.dxf")).isEqualTo("TG40/3000/plate.dxf");
    }
}
