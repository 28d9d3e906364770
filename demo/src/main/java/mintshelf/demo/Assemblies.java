package mintshelf.demo;

import java.util.List;
import mintshelf.demo.sheet.Sheets.Component;
import mintshelf.demo.sheet.Sheets.Shape;
import mintshelf.demo.sheet.Sheets.Size;

/** What the assemblies of the station consist of, and where each component is: millimetres from the lower left. */
final class Assemblies {
    private static final String BOUGHT = "bought";
    private static final String SCREW = "A4-70";

    static final Shape STATION = new Shape.Assembly(
            Size.A1,
            List.of(
                    new Component("TG40-1000", "Stilling well", 1, "", 0, 0, 420, 2600),
                    new Component("TG40-2000", "Float and tape", 1, "", 100, 1500, 220, 700),
                    new Component("TG40-3000", "Encoder head", 1, "", 60, 2640, 300, 260),
                    new Component("TG40-4000", "Mast", 1, "", 700, 900, 900, 3400)));

    static final Shape.Assembly WELL = new Shape.Assembly(
            Size.A2,
            List.of(
                    new Component("TG40-1010", "Well pipe", 1, "316L", 122, 170, 355, 2400),
                    new Component("TG40-1020", "Intake cone", 1, "316L", 160, 0, 280, 170),
                    new Component("TG40-1030", "End ring", 1, "316L", 90, 2570, 420, 40),
                    new Component("TG40-1040", "Pipe clamp", 4, "316L", 60, 1900, 480, 80),
                    new Component("TG40-1050", "Clamp liner", 4, "NBR", 110, 1920, 380, 40),
                    new Component("ISO 4017 M8 x 40", "Hexagon screw", 16, SCREW, 0, 1910, 60, 60),
                    new Component("ISO 4032 M8", "Hexagon nut", 16, SCREW, 540, 1910, 40, 60)));

    static final Shape FLOAT = new Shape.Assembly(
            Size.A2,
            List.of(
                    new Component("TG40-2010", "Float", 1, "POM-C", 0, 0, 200, 140),
                    new Component("TG40-2020", "Counterweight", 1, "316L", 330, 220, 48, 110),
                    new Component("TG40-2030", "Tape pulley", 1, "POM-C", 170, 720, 180, 120),
                    new Component("TG40-2040", "Pulley axle", 1, "316L", 140, 770, 240, 20),
                    new Component("EGW-FT-12", "Float tape", 1, BOUGHT, 95, 140, 10, 620)));

    static final Shape HEAD = new Shape.Assembly(
            Size.A2,
            List.of(
                    new Component("TG40-3010", "Housing", 1, "316L", 0, 0, 240, 90),
                    new Component("TG40-3020", "Lid", 1, "316L", 0, 94, 240, 5),
                    new Component("TG40-3030", "Gland plate", 1, "316L", 40, -8, 160, 8),
                    new Component("TG40-3040", "Lid gasket", 1, "VMQ", 4, 90, 232, 4),
                    new Component("TG40-3050", "Shaft", 1, "316L", 112, 18, 16, 124),
                    new Component("ISO 15 6202", "Ball bearing", 2, "library", 102, 30, 36, 12),
                    new Component("EGW-EN-48", "Encoder", 1, BOUGHT, 90, 50, 60, 36),
                    new Component("ISO 3601 40 x 2", "O-ring", 1, "NBR", 84, 24, 72, 4),
                    new Component("ISO 4762 M6 x 16", "Cap screw", 8, SCREW, 214, 99, 12, 10)));

    static final Shape MAST = new Shape.Assembly(
            Size.A2,
            List.of(
                    new Component("TG40-4010", "Base plate", 1, "S355J2", 0, 0, 400, 15),
                    new Component("TG40-4020", "Mast tube", 1, "S355J2", 143, 15, 114, 3000),
                    new Component("TG40-4030", "Gusset", 4, "S355J2", 257, 15, 90, 150),
                    new Component("TG40-4040", "Panel cradle", 1, "316L", 257, 2500, 300, 60),
                    new Component("TG40-4050", "Hose guide", 1, "POM-C", 80, 1400, 63, 40),
                    new Component("EGW-SP-20", "Solar panel", 1, BOUGHT, 257, 2560, 540, 30),
                    new Component("ISO 4017 M5 x 20", "Hexagon screw", 7, SCREW, 560, 2480, 40, 20)));

    /** The river staff reader shares the pipe clamp and the library's screws. */
    static final Shape READER = new Shape.Assembly(
            Size.A3,
            List.of(
                    new Component("LS18-1010", "Clamp rail", 1, "316L", 60, 0, 40, 220),
                    new Component("TG40-1040", "Pipe clamp", 2, "316L", 0, 90, 160, 30),
                    new Component("ISO 4017 M8 x 40", "Hexagon screw", 4, SCREW, 160, 96, 24, 16)),
            List.of("../TG40 Tide gauge/1000 Stilling well/tg40-1040-pipe-clamp.dxf"));

    private Assemblies() {}
}
