package mintshelf.app.page.document;

import mintshelf.app.effect.HouseSeal;
import org.springframework.http.ResponseEntity;
import org.springframework.stereotype.Controller;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.ResponseBody;

/** The certificate of the house's seal: who has it proves a PDF without a network. */
@Controller
public class SealPage {
    private final HouseSeal seal;

    SealPage(HouseSeal seal) {
        this.seal = seal;
    }

    @GetMapping(value = "/seal.cer", produces = "application/pkix-cert")
    @ResponseBody
    ResponseEntity<byte[]> certificate() {
        return ResponseEntity.ok()
                .header("Content-Disposition", "attachment; filename=\"mint-shelf-seal.cer\"")
                .body(seal.certificate());
    }
}
