// Written by core/scripts/embed-tables.mjs from core/data; do not edit by hand.
/** slug, name, Colour Index, character, caution. */
export const GENERIC_PIGMENTS = [
  [
    "titanium-white",
    "Titanium white",
    "PW6",
    "opaque; very strong; slightly warm in oil; the lightest paint",
    "none"
  ],
  [
    "zinc-white",
    "Zinc white",
    "PW4",
    "semi-transparent; weak; cooler and bluer tints than titanium; brittle film",
    "none"
  ],
  [
    "lead-white",
    "Lead white",
    "PW1",
    "opaque; warm; weaker tinting than titanium; fast drying",
    "lead"
  ],
  [
    "titanium-zinc-white",
    "Titanium-zinc white",
    "PW6+PW4",
    "opaque; between the two",
    "none"
  ],
  [
    "unbleached-titanium",
    "Unbleached titanium",
    "PW6:1",
    "opaque pale warm buff",
    "none"
  ],
  [
    "cadmium-lemon",
    "Cadmium lemon",
    "PY35",
    "opaque; strong; greenish yellow",
    "cadmium"
  ],
  [
    "cadmium-yellow",
    "Cadmium yellow",
    "PY35",
    "opaque; strong; mid yellow; very light in value",
    "cadmium"
  ],
  [
    "cadmium-yellow-deep",
    "Cadmium yellow deep",
    "PY37",
    "opaque; strong; orange yellow",
    "cadmium"
  ],
  [
    "hansa-yellow",
    "Hansa yellow",
    "PY74",
    "semi-transparent; clean mid yellow; clean greens",
    "none"
  ],
  [
    "bismuth-yellow",
    "Bismuth yellow",
    "PY184",
    "opaque; lemon; strong",
    "none"
  ],
  [
    "nickel-titanate-yellow",
    "Nickel titanate yellow",
    "PY53",
    "opaque; weak; pale dull lemon",
    "nickel"
  ],
  [
    "indian-yellow",
    "Indian yellow",
    "PY83",
    "transparent; strong; brownish orange masstone, glowing yellow undertone",
    "none"
  ],
  [
    "naples-yellow-genuine",
    "Naples yellow genuine",
    "PY41",
    "opaque; weak; soft pale warm yellow",
    "lead"
  ],
  [
    "naples-yellow-hue",
    "Naples yellow hue",
    "PW6+PY35+PY42",
    "opaque; pale warm yellow, contains white",
    "cadmium"
  ],
  [
    "yellow-ochre",
    "Yellow ochre",
    "PY43",
    "semi-opaque; moderate; earthy yellow of mid-light value",
    "none"
  ],
  [
    "yellow-oxide",
    "Yellow oxide",
    "PY42",
    "opaque; stronger and a little brighter than yellow ochre",
    "none"
  ],
  [
    "transparent-yellow-oxide",
    "Transparent yellow oxide",
    "PY42",
    "transparent; golden brown masstone, bright ochre glaze",
    "none"
  ],
  [
    "raw-sienna",
    "Raw sienna",
    "PBr7",
    "semi-transparent; darker and warmer than yellow ochre",
    "none"
  ],
  [
    "cadmium-orange",
    "Cadmium orange",
    "PO20",
    "opaque; strong",
    "cadmium"
  ],
  [
    "pyrrole-orange",
    "Pyrrole orange",
    "PO73",
    "semi-opaque; strong",
    "none"
  ],
  [
    "cadmium-red-light",
    "Cadmium red light",
    "PR108",
    "opaque; strong; orange red",
    "cadmium"
  ],
  [
    "cadmium-red",
    "Cadmium red",
    "PR108",
    "opaque; strong; mid red; cools and dulls in tints",
    "cadmium"
  ],
  [
    "cadmium-red-deep",
    "Cadmium red deep",
    "PR108",
    "opaque; strong; dark cool red",
    "cadmium"
  ],
  [
    "pyrrole-red",
    "Pyrrole red",
    "PR254",
    "semi-opaque; strong; cleaner tints than cadmium red",
    "none"
  ],
  [
    "indian-red",
    "Indian red",
    "PR101",
    "very opaque; very strong; dark brick with violet tints",
    "none"
  ],
  [
    "venetian-red",
    "Venetian red",
    "PR101",
    "opaque; strong; brick red, salmon tints",
    "none"
  ],
  [
    "transparent-oxide-red",
    "Transparent oxide red",
    "PR101",
    "transparent; strong; deep red-brown, fiery orange undertone",
    "none"
  ],
  [
    "quinacridone-rose",
    "Quinacridone rose",
    "PV19",
    "transparent; strong; cool pink tints",
    "none"
  ],
  [
    "quinacridone-magenta",
    "Quinacridone magenta",
    "PR122",
    "transparent; strong; violet-leaning red",
    "none"
  ],
  [
    "quinacridone-crimson",
    "Quinacridone crimson",
    "PR206+PV19",
    "transparent; deep crimson",
    "none"
  ],
  [
    "alizarin-crimson",
    "Alizarin crimson",
    "PR83",
    "transparent; very dark masstone; cool rose tints; slow drying",
    "fugitive"
  ],
  [
    "alizarin-permanent",
    "Alizarin permanent",
    "PR177",
    "transparent; very dark masstone; cool rose tints",
    "none"
  ],
  [
    "cobalt-violet",
    "Cobalt violet",
    "PV14",
    "semi-transparent; weak",
    "cobalt"
  ],
  [
    "manganese-violet",
    "Manganese violet",
    "PV16",
    "semi-transparent; weak to moderate",
    "manganese"
  ],
  [
    "dioxazine-violet",
    "Dioxazine violet",
    "PV23",
    "transparent; very strong; almost black masstone",
    "none"
  ],
  [
    "ultramarine-blue",
    "Ultramarine blue",
    "PB29",
    "transparent; moderate; very dark masstone leaning violet",
    "none"
  ],
  [
    "cobalt-blue",
    "Cobalt blue",
    "PB28",
    "semi-transparent; weak to moderate; lighter than ultramarine, neither green nor violet",
    "cobalt"
  ],
  [
    "cerulean-blue",
    "Cerulean blue",
    "PB35",
    "semi-opaque; weak; light, slightly green",
    "cobalt"
  ],
  [
    "manganese-blue-hue",
    "Manganese blue hue",
    "PB15:3+PW6",
    "semi-transparent; greenish light blue",
    "none"
  ],
  [
    "phthalo-blue",
    "Phthalo blue green shade",
    "PB15:3",
    "transparent; enormous strength; almost black masstone; greenish tints",
    "none"
  ],
  [
    "phthalo-blue-red-shade",
    "Phthalo blue red shade",
    "PB15:1",
    "transparent; enormous strength; less green",
    "none"
  ],
  [
    "prussian-blue",
    "Prussian blue",
    "PB27",
    "transparent; very strong; dark greenish blue, tints duller than phthalo",
    "none"
  ],
  [
    "indanthrone-blue",
    "Indanthrone blue",
    "PB60",
    "transparent; dark, dull violet-blue",
    "none"
  ],
  [
    "phthalo-turquoise",
    "Phthalo turquoise",
    "PB16",
    "transparent; enormous strength; blue-green",
    "none"
  ],
  [
    "cobalt-teal",
    "Cobalt teal",
    "PG50",
    "semi-opaque; light clean blue-green",
    "cobalt"
  ],
  [
    "viridian",
    "Viridian",
    "PG18",
    "transparent; moderate; cold bluish green",
    "chromium"
  ],
  [
    "phthalo-green",
    "Phthalo green blue shade",
    "PG7",
    "transparent; enormous strength; cold green",
    "none"
  ],
  [
    "phthalo-green-yellow-shade",
    "Phthalo green yellow shade",
    "PG36",
    "transparent; very strong; warmer green",
    "none"
  ],
  [
    "chromium-oxide-green",
    "Chromium oxide green",
    "PG17",
    "very opaque; dull willow green",
    "chromium"
  ],
  [
    "terre-verte",
    "Terre verte",
    "PG23",
    "transparent; very weak; greyed green",
    "none"
  ],
  [
    "sap-green",
    "Sap green hue",
    "PG36+PY83",
    "transparent; warm dark olive green",
    "none"
  ],
  [
    "olive-green",
    "Olive green hue",
    "PG36+PY83+PBk9",
    "transparent; dark dull yellow-green",
    "none"
  ],
  [
    "burnt-sienna",
    "Burnt sienna",
    "PBr7",
    "semi-transparent; moderate; red-orange earth of mid-dark value",
    "none"
  ],
  [
    "raw-umber",
    "Raw umber",
    "PBr7",
    "semi-opaque; dark greenish brown; fast drying",
    "manganese"
  ],
  [
    "burnt-umber",
    "Burnt umber",
    "PBr7",
    "semi-opaque; dark warm brown, redder than raw umber; fast drying",
    "manganese"
  ],
  [
    "van-dyke-brown",
    "Van Dyke brown hue",
    "PBr7+PBk9",
    "semi-transparent; very dark neutral brown",
    "none"
  ],
  [
    "paynes-grey",
    "Payne's grey",
    "PB29+PBk9",
    "semi-transparent; blue-black",
    "none"
  ],
  [
    "ivory-black",
    "Ivory black",
    "PBk9",
    "semi-transparent; weak for a black; slightly warm masstone; slow drying",
    "none"
  ],
  [
    "lamp-black",
    "Lamp black",
    "PBk6",
    "opaque; strong; bluer tints than ivory black; slow drying",
    "none"
  ],
  [
    "mars-black",
    "Mars black",
    "PBk11",
    "very opaque; strong; warm to neutral; fast drying",
    "none"
  ],
  [
    "naphthol-red",
    "Naphthol red",
    "PR170",
    "semi-transparent; strong; clean mid to cool red",
    "none"
  ],
  [
    "mixing-white",
    "Mixing white",
    "PW6+PW4",
    "semi-opaque; deliberately weak white for fine tint control",
    "none"
  ]
] as const;
