import tseslint from "typescript-eslint";

/** The floors of the house and, inside core, its rooms: each may import only what stands below it. */
const FLOORS = ["core", "server", "worker", "cli", "demo", "ui", "app", "web"];
const MAY = {
  core: [],
  server: ["core"],
  worker: ["core", "server"],
  cli: ["core", "server", "worker", "demo"],
  // the demo measures its references with the worker's kernel
  demo: ["core", "server", "worker"],
  // types of what the server hands over; its code stays on the server
  ui: ["core"],
  app: ["core", "server", "ui"],
  // the process that serves them
  web: ["app", "server", "core"],
};
const ROOMS = [
  "roster",
  "naming",
  "units",
  "geometry",
  "sketch",
  "kernel",
  "measure",
  "formats",
  "part",
  "sizes",
  "sheet",
  "check",
  "grade",
  "exercise",
];
const ROOM_MAY = {
  roster: ["units"],
  naming: ["units"],
  units: [],
  geometry: [],
  sketch: ["naming", "units", "geometry"],
  kernel: ["naming", "units", "geometry", "sketch"],
  measure: ["naming", "units", "geometry", "kernel"],
  part: ["naming", "units", "geometry", "sketch", "kernel"],
  formats: ["naming", "units", "geometry", "sketch", "kernel"],
  sizes: ["naming", "units", "geometry", "sketch", "kernel", "measure", "part"],
  sheet: ["naming", "units", "geometry", "kernel", "formats", "measure", "part", "sizes"],
  check: ["naming", "units", "geometry", "kernel", "formats", "measure", "part", "sizes", "sheet"],
  cause: ["naming", "units", "geometry", "kernel", "part", "sizes", "sheet", "check"],
  grade: ["units", "check"],
  exercise: ["naming", "units", "part", "sizes", "sheet", "check", "grade"],
};

const group = (names, prefix) => names.map((n) => `${prefix}${n}/**`);
const restrict = (files, patterns, message) => ({
  files,
  ignores: ["**/*.test.ts"],
  rules: {
    "@typescript-eslint/no-restricted-imports": [
      "error",
      { patterns: [{ group: patterns, message, allowTypeImports: false }] },
    ],
  },
});

export default tseslint.config(
  { ignores: [".next/**", "node_modules/**", "public/**", "next-env.d.ts", ".data/**", "test-results/**"] },
  ...tseslint.configs.recommended,
  {
    rules: {
      "@typescript-eslint/no-explicit-any": "error",
      "@typescript-eslint/no-unused-expressions": "off",
      "@typescript-eslint/no-unused-vars": ["error", { argsIgnorePattern: "^_", varsIgnorePattern: "^_" }],
      "no-console": ["error", { allow: ["error"] }],
      eqeqeq: "error",
    },
  },
  { files: ["scripts/**", "src/worker/worker.ts", "tests/**"], rules: { "no-console": "off" } },
  {
    files: ["tests/browser/**"],
    rules: {
      "no-restricted-syntax": [
        "error",
        {
          selector: "CallExpression[callee.property.name='fill']",
          message: "Browser tests type as a hand does: type(field, text), or paste(field, text) for lists.",
        },
      ],
    },
  },
  ...FLOORS.filter((f) => f !== "core" && f !== "ui").map((f) =>
    restrict(
      [`src/${f}/**`],
      group(
        FLOORS.filter((o) => o !== f && !MAY[f].includes(o)),
        "@/",
      ),
      `src/${f} may import only ${MAY[f].join(", ")}.`,
    ),
  ),
  {
    files: ["src/ui/**"],
    ignores: ["**/*.test.ts"],
    rules: {
      "@typescript-eslint/no-restricted-imports": [
        "error",
        {
          patterns: [
            { group: group(["worker", "cli", "demo"], "@/"), message: "src/ui stands on core only." },
            { group: ["@/server/**"], message: "Only types come from the server.", allowTypeImports: true },
            {
              group: ["@/app/**"],
              allowImportNames: ["signIn", "FormState", "ExerciseFormState"],
              message: "Actions are handed in as properties.",
            },
          ],
        },
      ],
    },
  },
  ...ROOMS.map((r) =>
    restrict(
      [`src/core/${r}/**`],
      [
        ...group(
          FLOORS.filter((o) => o !== "core"),
          "@/",
        ),
        ...group(
          ROOMS.filter((o) => o !== r && !ROOM_MAY[r].includes(o)),
          "@/core/",
        ),
        "node:*",
        ...(r === "kernel" ? [] : ["replicad-opencascadejs"]),
      ],
      `src/core/${r} may import only ${ROOM_MAY[r].join(", ") || "nothing"}.`,
    ),
  ),
);
