import { COMMANDS } from './commands/index.ts';

/** docs/CLI.md: the help of every command, and what holds for all. */
export function manual(): string {
  const rows = COMMANDS.map(({ name, summary }) => `| [\`${name}\`](#dusk-${name}) | ${summary} |`).join('\n');
  const chapters = COMMANDS.map(
    ({ name, summary, help }) => `## dusk ${name}\n\n${summary[0]!.toUpperCase()}${summary.slice(1)}.\n\n\`\`\`text\n${help}\n\`\`\`\n`,
  );
  return `# dusk on the command line

\`npx dusk <command> [file]\` reads JSON from a file or standard input and writes JSON to standard output. An array of inputs gives an array of outputs, in one process. An error is one clear line on standard error and exit code 2. \`dusk <command> --help\` shows what stands here.

Tubes are named by the generic pigments of the catalogue, as \`titanium-white\`; every command also takes \`"tubes":{"my sienna":{"K":[…],"S":[…]}}\`, one’s own curves in 36 bands from 380 nm as \`dusk fit\` answers them, whose names then stand beside those. Parts are volumes of tube paint. Lab, unless an illuminant is named, is CIELAB under D65 for the CIE 1931 2° observer; XYZ has Y of the white at 100; value is Munsell value, 0–10.

| command | what it does |
| --- | --- |
${rows}

${chapters.join('\n')}`;
}
