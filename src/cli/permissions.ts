import { writeFileSync } from "node:fs";
import { permissionTable } from "@/server/permission-table";

writeFileSync("docs/permissions.md", permissionTable());
