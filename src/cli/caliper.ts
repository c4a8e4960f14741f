import { runVerb } from "./verbs";

const code = await runVerb(process.argv.slice(2), {
  out: (text) => process.stdout.write(text),
  complain: (line) => process.stderr.write(`${line}\n`),
});
process.exit(code);
