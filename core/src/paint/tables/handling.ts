// Written by core/scripts/derive-curves.ts from core/src/paint/pigments; do not edit by hand.
import type { Drying, Lightfastness } from '../pigments/definition.ts';

export const HANDLING: Readonly<
  Record<string, { density: number; oil: number; drying: Drying; lightfastness: Lightfastness; basis: string }>
> = {
  "titanium-white": {
    "density": 2.05,
    "oil": 22,
    "drying": "medium",
    "lightfastness": "I",
    "basis": "rutile: band gap near 400 nm, high even scattering (the unit of the catalogue); warmed by the oil"
  },
  "zinc-white": {
    "density": 2.3,
    "oil": 15,
    "drying": "slow",
    "lightfastness": "I",
    "basis": "zinc oxide: band gap below 380 nm, so the violet is clear and tints are cooler; weak fine-grained scattering"
  },
  "lead-white": {
    "density": 3.1,
    "oil": 12,
    "drying": "fast",
    "lightfastness": "I",
    "basis": "basic lead carbonate: no visible band, lower index than rutile; the yellow of its oil shows most"
  },
  "unbleached-titanium": {
    "density": 1.9,
    "oil": 24,
    "drying": "medium",
    "lightfastness": "I",
    "basis": "titanium dioxide tinted by traces of iron: a long brownish tail on the rutile edge"
  },
  "titanium-zinc-white": {
    "density": 2.2,
    "oil": 18,
    "drying": "medium",
    "lightfastness": "I",
    "basis": "half titanium white, half zinc white"
  },
  "mixing-white": {
    "density": 1.6,
    "oil": 20,
    "drying": "medium",
    "lightfastness": "I",
    "basis": "mostly zinc with little titanium and clear extender: deliberately weak"
  },
  "cadmium-lemon": {
    "density": 2,
    "oil": 25,
    "drying": "slow",
    "lightfastness": "I",
    "basis": "cadmium zinc sulfide: band gap near 478 nm, steep edge, strong scattering above it"
  },
  "cadmium-yellow": {
    "density": 2,
    "oil": 25,
    "drying": "slow",
    "lightfastness": "I",
    "basis": "cadmium sulfide: band gap near 503 nm, steep edge, strong scattering above it"
  },
  "cadmium-yellow-deep": {
    "density": 2.05,
    "oil": 24,
    "drying": "slow",
    "lightfastness": "I",
    "basis": "cadmium sulfide with a little selenide: edge near 527 nm"
  },
  "hansa-yellow": {
    "density": 1.15,
    "oil": 40,
    "drying": "medium",
    "lightfastness": "II",
    "basis": "arylide PY74: π–π* absorption to 490 nm, weak scattering"
  },
  "bismuth-yellow": {
    "density": 2.1,
    "oil": 22,
    "drying": "medium",
    "lightfastness": "I",
    "basis": "bismuth vanadate: charge-transfer edge near 475 nm, opaque"
  },
  "nickel-titanate-yellow": {
    "density": 2.1,
    "oil": 18,
    "drying": "medium",
    "lightfastness": "I",
    "basis": "nickel and antimony in rutile: rutile edge shifted to 440 nm with a weak Ni shoulder; weak, opaque"
  },
  "indian-yellow": {
    "density": 1.15,
    "oil": 45,
    "drying": "slow",
    "lightfastness": "II",
    "basis": "diarylide PY83: strong broad absorption to 510 nm, very little scattering, so the masstone browns"
  },
  "naples-yellow-genuine": {
    "density": 2.7,
    "oil": 14,
    "drying": "fast",
    "lightfastness": "I",
    "basis": "lead antimonate: soft edge near 470 nm, weak absorption, opaque"
  },
  "cadmium-orange": {
    "density": 2.05,
    "oil": 23,
    "drying": "slow",
    "lightfastness": "I",
    "basis": "cadmium sulfoselenide: edge near 558 nm"
  },
  "pyrrole-orange": {
    "density": 1.2,
    "oil": 42,
    "drying": "slow",
    "lightfastness": "I",
    "basis": "diketopyrrolopyrrole PO73: band at 520 nm with an edge to 560 nm, moderate scattering"
  },
  "naples-yellow-hue": {
    "density": 1.95,
    "oil": 22,
    "drying": "medium",
    "lightfastness": "I",
    "basis": "titanium white with cadmium yellow and yellow oxide"
  },
  "cadmium-red-light": {
    "density": 2.1,
    "oil": 22,
    "drying": "slow",
    "lightfastness": "I",
    "basis": "cadmium sulfoselenide: edge near 584 nm, flat absorption below"
  },
  "cadmium-red": {
    "density": 2.1,
    "oil": 21,
    "drying": "slow",
    "lightfastness": "I",
    "basis": "cadmium sulfoselenide: edge near 600 nm; absorbs green more than violet, so tints cool"
  },
  "cadmium-red-deep": {
    "density": 2.15,
    "oil": 20,
    "drying": "slow",
    "lightfastness": "I",
    "basis": "cadmium sulfoselenide rich in selenide: edge near 620 nm"
  },
  "pyrrole-red": {
    "density": 1.2,
    "oil": 45,
    "drying": "slow",
    "lightfastness": "I",
    "basis": "diketopyrrolopyrrole PR254: twin bands near 508 and 545 nm, steep fall to 600 nm"
  },
  "naphthol-red": {
    "density": 1.15,
    "oil": 50,
    "drying": "slow",
    "lightfastness": "II",
    "basis": "naphthol AS PR170: bands near 520 and 555 nm, cooler than pyrrole red"
  },
  "quinacridone-rose": {
    "density": 1.15,
    "oil": 50,
    "drying": "slow",
    "lightfastness": "I",
    "basis": "quinacridone PV19 γ: vibronic bands near 492, 527 and 562 nm, open in violet and red"
  },
  "quinacridone-magenta": {
    "density": 1.15,
    "oil": 52,
    "drying": "slow",
    "lightfastness": "I",
    "basis": "dimethyl quinacridone PR122: stronger 563 nm band and a more open violet than PV19"
  },
  "quinacridone-crimson": {
    "density": 1.15,
    "oil": 50,
    "drying": "slow",
    "lightfastness": "I",
    "basis": "quinacridone solid solution: bands of PV19 moved some 10 nm to the red, fuller in the blue"
  },
  "alizarin-crimson": {
    "density": 1.2,
    "oil": 60,
    "drying": "slow",
    "lightfastness": "IV",
    "basis": "alizarin lake PR83: bands near 513 and 550 nm, almost no scattering"
  },
  "alizarin-permanent": {
    "density": 1.15,
    "oil": 50,
    "drying": "slow",
    "lightfastness": "I",
    "basis": "anthraquinone PR177: bands near 520 and 556 nm, little scattering"
  },
  "cobalt-violet": {
    "density": 1.9,
    "oil": 20,
    "drying": "fast",
    "lightfastness": "I",
    "basis": "cobalt phosphate: crystal-field triplet near 500, 543 and 588 nm; weak"
  },
  "manganese-violet": {
    "density": 1.6,
    "oil": 25,
    "drying": "fast",
    "lightfastness": "I",
    "basis": "manganese ammonium pyrophosphate: one broad band near 548 nm"
  },
  "dioxazine-violet": {
    "density": 1.15,
    "oil": 55,
    "drying": "slow",
    "lightfastness": "II",
    "basis": "carbazole dioxazine PV23: overlapping bands near 532, 572 and 615 nm, very strong"
  },
  "ultramarine-blue": {
    "density": 1.45,
    "oil": 35,
    "drying": "slow",
    "lightfastness": "I",
    "basis": "trisulfur radical in sodalite: one broad band at 600 nm, clear violet, tail into the red"
  },
  "cobalt-blue": {
    "density": 1.75,
    "oil": 28,
    "drying": "fast",
    "lightfastness": "I",
    "basis": "cobalt aluminate: tetrahedral Co triplet at 545, 587 and 628 nm; red returns beyond 680 nm"
  },
  "cerulean-blue": {
    "density": 2,
    "oil": 18,
    "drying": "fast",
    "lightfastness": "I",
    "basis": "cobalt stannate: Co bands spread from 550 to 690 nm, weak, half opaque"
  },
  "phthalo-blue": {
    "density": 1.15,
    "oil": 45,
    "drying": "medium",
    "lightfastness": "I",
    "basis": "copper phthalocyanine β: Q bands near 612 and 706 nm, clear from 440 to 500 nm, enormous strength"
  },
  "phthalo-blue-red-shade": {
    "density": 1.15,
    "oil": 45,
    "drying": "medium",
    "lightfastness": "I",
    "basis": "copper phthalocyanine α: Q bands nearer the yellow than β"
  },
  "prussian-blue": {
    "density": 1.25,
    "oil": 55,
    "drying": "fast",
    "lightfastness": "I",
    "basis": "iron hexacyanoferrate: intervalence band centred near 690 nm, very broad, so tints stay dull"
  },
  "indanthrone-blue": {
    "density": 1.15,
    "oil": 50,
    "drying": "medium",
    "lightfastness": "I",
    "basis": "indanthrone PB60: broad bands near 612 and 700 nm, some violet absorbed"
  },
  "phthalo-turquoise": {
    "density": 1.15,
    "oil": 45,
    "drying": "medium",
    "lightfastness": "I",
    "basis": "metal-free phthalocyanine PB16: Q bands moved to 640 and 712 nm, so blue-green is open"
  },
  "cobalt-teal": {
    "density": 1.9,
    "oil": 20,
    "drying": "fast",
    "lightfastness": "I",
    "basis": "cobalt titanate PG50: Co bands from 600 to 710 nm, a little violet absorbed"
  },
  "manganese-blue-hue": {
    "density": 1.3,
    "oil": 30,
    "drying": "medium",
    "lightfastness": "I",
    "basis": "phthalo blue let down in a little white and clear extender"
  },
  "viridian": {
    "density": 1.55,
    "oil": 50,
    "drying": "medium",
    "lightfastness": "I",
    "basis": "hydrated chromium oxide: Cr bands near 432 and 620 nm, window at 510 nm"
  },
  "phthalo-green": {
    "density": 1.2,
    "oil": 40,
    "drying": "medium",
    "lightfastness": "I",
    "basis": "chlorinated copper phthalocyanine PG7: Q bands near 640 and 708 nm, window at 500 nm"
  },
  "phthalo-green-yellow-shade": {
    "density": 1.35,
    "oil": 35,
    "drying": "medium",
    "lightfastness": "I",
    "basis": "bromo-chlorinated copper phthalocyanine PG36: bands 15 nm further to the red, more violet absorbed"
  },
  "chromium-oxide-green": {
    "density": 2.4,
    "oil": 17,
    "drying": "medium",
    "lightfastness": "I",
    "basis": "chromium sesquioxide: Cr bands near 462 and 605 nm over a grey floor, very opaque"
  },
  "terre-verte": {
    "density": 1.5,
    "oil": 60,
    "drying": "slow",
    "lightfastness": "I",
    "basis": "celadonite and glauconite: Fe²⁺–Fe³⁺ transfer near 720 nm and an ultraviolet edge; very weak"
  },
  "sap-green": {
    "density": 1.2,
    "oil": 42,
    "drying": "slow",
    "lightfastness": "II",
    "basis": "phthalo green yellow shade in Indian yellow, with clear extender"
  },
  "olive-green": {
    "density": 1.2,
    "oil": 42,
    "drying": "slow",
    "lightfastness": "II",
    "basis": "phthalo green yellow shade and ivory black in Indian yellow"
  },
  "yellow-ochre": {
    "density": 1.75,
    "oil": 35,
    "drying": "medium",
    "lightfastness": "I",
    "basis": "goethite in clay: charge-transfer edge near 507 nm, the 480 nm pair and the weak 650 nm crystal-field band"
  },
  "yellow-oxide": {
    "density": 1.75,
    "oil": 40,
    "drying": "medium",
    "lightfastness": "I",
    "basis": "synthetic goethite: as ochre without the clay, sharper and stronger"
  },
  "transparent-yellow-oxide": {
    "density": 1.4,
    "oil": 45,
    "drying": "medium",
    "lightfastness": "I",
    "basis": "goethite of very fine grain: the same bands, little scattering"
  },
  "raw-sienna": {
    "density": 1.55,
    "oil": 45,
    "drying": "medium",
    "lightfastness": "I",
    "basis": "goethite with a little manganese: lower and broader edge than ochre, less scattering"
  },
  "indian-red": {
    "density": 2.1,
    "oil": 22,
    "drying": "medium",
    "lightfastness": "I",
    "basis": "coarse hematite: edge moved to 592 nm and the 660 nm band marked, so tints turn violet"
  },
  "venetian-red": {
    "density": 1.9,
    "oil": 25,
    "drying": "medium",
    "lightfastness": "I",
    "basis": "fine hematite with calcium sulfate: edge near 578 nm, brick"
  },
  "transparent-oxide-red": {
    "density": 1.4,
    "oil": 45,
    "drying": "medium",
    "lightfastness": "I",
    "basis": "hematite of very fine grain: edge near 562 nm rising steeply to the violet, little scattering"
  },
  "burnt-sienna": {
    "density": 1.55,
    "oil": 45,
    "drying": "medium",
    "lightfastness": "I",
    "basis": "roasted raw sienna: hematite edge near 568 nm over a little manganese"
  },
  "raw-umber": {
    "density": 1.55,
    "oil": 50,
    "drying": "fast",
    "lightfastness": "I",
    "basis": "goethite and manganese oxides: a broad fall from violet to red, greenish against burnt umber"
  },
  "burnt-umber": {
    "density": 1.55,
    "oil": 50,
    "drying": "fast",
    "lightfastness": "I",
    "basis": "hematite and manganese oxides: the same fall moved to 562 nm, so redder"
  },
  "van-dyke-brown": {
    "density": 1.4,
    "oil": 48,
    "drying": "medium",
    "lightfastness": "I",
    "basis": "burnt umber with ivory black"
  },
  "ivory-black": {
    "density": 1.3,
    "oil": 60,
    "drying": "slow",
    "lightfastness": "I",
    "basis": "bone char: carbon in calcium phosphate, slightly more absorbing to the violet; a third of lamp black’s strength"
  },
  "lamp-black": {
    "density": 1.15,
    "oil": 90,
    "drying": "slow",
    "lightfastness": "I",
    "basis": "soot: fine carbon whose absorption rises a little to the red, so tints are bluish"
  },
  "mars-black": {
    "density": 2.1,
    "oil": 25,
    "drying": "fast",
    "lightfastness": "I",
    "basis": "magnetite: intervalence absorption across the visible, a little more to the violet; very opaque"
  },
  "paynes-grey": {
    "density": 1.35,
    "oil": 45,
    "drying": "slow",
    "lightfastness": "I",
    "basis": "ultramarine with ivory black"
  }
};
