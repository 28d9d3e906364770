package mintshelf.app;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.charset.StandardCharsets;
import java.util.List;
import mintshelf.app.effect.References;
import org.junit.jupiter.api.Test;
import org.openqa.selenium.By;
import org.openqa.selenium.support.ui.Select;

/** Walk 9: where used, swap across assemblies, the report; and two models held against each other. */
class SwapWalkTest extends InBrowser {
    private final long shelf = SERVER.shelf();
    private final String mark = Server.key().substring(0, 8);

    private long file(String name, byte[] bytes) {
        return SERVER.file("priya", shelf, Server.PLAIN, name + " " + mark + ".stp", bytes, false);
    }

    private static byte[] plate(String extra) {
        return """
                ISO-10303-21;
                HEADER;
                FILE_NAME('p','2026-01-01',(''),(''),'','','');
                FILE_SCHEMA(('AP242'));
                ENDSEC;
                DATA;
                #1=CARTESIAN_POINT('',(0.,0.,0.));#2=DIRECTION('',(0.,0.,1.));#3=DIRECTION('',(1.,0.,0.));
                #4=AXIS2_PLACEMENT_3D('',#1,#2,#3);#5=CIRCLE('',#4,RADIUS);#6=CARTESIAN_POINT('',(RADIUS,0.,0.));
                #7=VERTEX_POINT('',#6);#8=EDGE_CURVE('',#7,#7,#5,.T.);#9=CARTESIAN_POINT('',(0.,0.,5.));
                #10=AXIS2_PLACEMENT_3D('',#9,#2,#3);#11=CIRCLE('',#10,RADIUS);#12=CARTESIAN_POINT('',(RADIUS,0.,5.));
                #13=VERTEX_POINT('',#12);#14=EDGE_CURVE('',#13,#13,#11,.T.);#15=CYLINDRICAL_SURFACE('',#4,RADIUS);
                #16=ORIENTED_EDGE('',*,*,#8,.T.);#17=EDGE_LOOP('',(#16));#18=FACE_BOUND('',#17,.T.);
                #19=ORIENTED_EDGE('',*,*,#14,.F.);#20=EDGE_LOOP('',(#19));#21=FACE_BOUND('',#20,.T.);
                #22=ADVANCED_FACE('',(#18,#21),#15,.T.);#23=PLANE('',#10);#24=ORIENTED_EDGE('',*,*,#14,.T.);
                #25=EDGE_LOOP('',(#24));#26=FACE_BOUND('',#25,.T.);#27=ADVANCED_FACE('',(#26),#23,.T.);
                #28=PLANE('',#4);#29=ORIENTED_EDGE('',*,*,#8,.F.);#30=EDGE_LOOP('',(#29));#31=FACE_BOUND('',#30,.T.);
                #32=ADVANCED_FACE('',(#31),#28,.F.);#33=CLOSED_SHELL('',(#22,#27,#32));
                #34=MANIFOLD_SOLID_BREP('',#33);
                ENDSEC;
                END-ISO-10303-21;
                """.replace("RADIUS", extra).getBytes(StandardCharsets.US_ASCII);
    }

    @Test
    void fromWhereUsedOneTakesThePlaceOfAnotherInAllAndItIsTakenBack() {
        long thin = file("thin", plate("10."));
        long thick = file("thick", plate("11."));
        long mast = file("mast", StructureTest.assembly("m" + mark, "thin " + mark + ".stp", 2));
        long well = file("well", StructureTest.assembly("w" + mark, "thin " + mark + ".stp", 1));
        SERVER.checkOut("tomasz", well);
        browser.signIn("priya");
        browser.open("/documents/" + thin + "/where-used");
        browser.press("Put another in its place in all of them…");
        browser.find("#number").sendKeys(SERVER.document(thick).number());
        browser.press("Show what it does");
        browser.awaitText("round ⌀ 20 → ⌀ 22");
        assertThat(browser.text()).contains("Goes 1").contains("Held 1").contains("is held by Tomasz Okrent");
        Select held = new Select(browser.find(
                "select[aria-label='What becomes of " + SERVER.document(well).number() + "']"));
        assertThat(held.getFirstSelectedOption().getText()).isEqualTo("ask who holds it");
        browser.find("#reason").sendKeys("wept at berth 3");
        browser.press("Swap in 1 document");
        browser.awaitText("its holder is asked");
        assertThat(browser.text()).contains("new version 2").contains("2 of 2");
        assertThat(meant(mast)).isEqualTo(thick);
        assertThat(meant(well)).isEqualTo(thin);
        browser.press("Take it back…");
        browser.press("Take it back in 1 document");
        browser.awaitText("new version 3");
        assertThat(meant(mast)).isEqualTo(thin);
        assertThat(Web.as(SERVER, "tomasz").get("/today").body()).contains("wept at berth 3");
    }

    private long meant(long item) {
        return SERVER.bean(References.class)
                .of(SERVER.document(item).head().version())
                .get(0)
                .component()
                .orElseThrow()
                .item();
    }

    @Test
    void twoModelsAreHeldAgainstEachOtherInWordsThatStepThroughTheView() {
        long pin = file("pin", plate("10."));
        SERVER.checkOut("priya", pin);
        SERVER.checkIn("priya", pin, plate("12.5"), false);
        browser.signIn("priya");
        browser.open("/documents/" + pin + "/versions/2/compare?old=1");
        browser.awaitText("round ⌀ 20 → ⌀ 25");
        assertThat(browser.text()).contains("Volume").contains("1.57 → 2.45 cm³");
        browser.find("[data-difference] button").click();
        browser.await(b -> b.find("[data-difference]").getDomAttribute("data-current") != null);
        browser.await(b -> b.driver()
                        .findElements(By.cssSelector(".model-ring:not([hidden])"))
                        .size()
                == 1);
        assertThat(List.of(browser.find(".model-ring").getText())).containsExactly("1");
        assertThat(Web.as(SERVER, "priya")
                        .get("/documents/" + pin + "/versions/2/differences?old=1")
                        .body())
                .contains("1 difference");
    }
}
