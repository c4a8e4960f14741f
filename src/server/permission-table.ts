import { PERMISSIONS, type Role } from "./permissions";

const ROLES: readonly Role[] = ["student", "assistant", "instructor", "administrator"];
const HEAD = `# Who may do what

Written by \`npm run permissions\` from the table that the program itself goes by (\`src/server/permissions.ts\`). In a
course one is not in, or has left, one may nothing; there is no other answer than for what does not exist.

`;

/** The table as a page of the documentation. */
export function permissionTable(): string {
  const cell = (role: Role, rule: { any?: readonly Role[]; own?: readonly Role[] }) => {
    if (rule.any?.includes(role)) return "yes";
    return rule.own?.includes(role) ? "their own" : "–";
  };
  const row = (cells: readonly string[]) => `| ${cells.join(" | ")} |`;
  const lines = [
    row(["what", "action", ...ROLES, "in another course"]),
    row(["what", "action", ...ROLES, "in another course"].map(() => "---")),
    ...Object.entries(PERMISSIONS).map(([action, rule]) =>
      row([rule.what, `\`${action}\``, ...ROLES.map((r) => cell(r, rule)), rule.on === "server" ? "" : "–"]),
    ),
  ];
  return `${HEAD}${lines.join("\n")}\n`;
}
