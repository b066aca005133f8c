import { readFileSync } from 'node:fs';
import { CraftError } from '@dusk/core';
import type { Command } from './command.ts';
import { COMMANDS } from './commands/index.ts';

const USAGE = `dusk <command> [file]   JSON from a file or standard input, JSON to standard output

${COMMANDS.map(({ name, summary }) => `  ${name.padEnd(9)} ${summary}`).join('\n')}

An array of inputs gives an array of outputs. "dusk <command> --help" shows input and output by example.`;

/** Where `dusk` reads and writes; the process itself unless a test says otherwise. */
export interface Terminal {
  readonly read: (file: string | undefined) => string;
  readonly out: (text: string) => void;
  readonly err: (text: string) => void;
}

const PROCESS: Terminal = {
  read: (file) => readFileSync(file ?? 0, 'utf8'),
  out: (text) => process.stdout.write(`${text}\n`),
  err: (text) => process.stderr.write(`${text}\n`),
};

function parse(text: string): unknown {
  if (text.trim() === '') throw new CraftError('input', 'There is no input: give a file, or JSON on standard input.');
  try {
    return JSON.parse(text);
  } catch (cause) {
    throw new CraftError('input', `The input is not JSON: ${(cause as Error).message}.`);
  }
}

/** One input or many; a bad one among many is named by its place. */
function answer(command: Command, input: unknown): unknown {
  if (!Array.isArray(input)) return command.run(input);
  return input.map((one, i) => {
    try {
      return command.run(one);
    } catch (cause) {
      if (cause instanceof CraftError) throw new CraftError(cause.kind, `Input ${i + 1} of ${input.length}: ${cause.message}`);
      throw cause;
    }
  });
}

/** A sentence on one line, whatever went wrong. */
function sentence(cause: unknown, file: string | undefined): string {
  if (cause instanceof CraftError) return cause.message;
  const code = (cause as NodeJS.ErrnoException).code;
  if (code === 'ENOENT') return `There is no file ${file}.`;
  if (code === 'EISDIR') return `${file} is a folder, not a file.`;
  return cause instanceof Error ? cause.message.split('\n')[0]! : String(cause);
}

/**
 * Runs `dusk` with its arguments.
 * @returns the exit code: 0, or 2 after one clear line on standard error
 */
export function main(args: readonly string[], terminal: Terminal = PROCESS): number {
  const [name, ...rest] = args;
  if (name === undefined || name === '--help' || name === '-h' || name === 'help') {
    terminal.out(USAGE);
    return 0;
  }
  const command = COMMANDS.find((c) => c.name === name);
  if (!command) {
    terminal.err(`There is no command ${JSON.stringify(name)}; known are ${COMMANDS.map((c) => c.name).join(', ')}.`);
    return 2;
  }
  if (rest.includes('--help') || rest.includes('-h')) {
    terminal.out(`dusk ${command.name}: ${command.summary}\n\n${command.help}`);
    return 0;
  }
  const [file] = rest;
  try {
    terminal.out(JSON.stringify(answer(command, parse(terminal.read(file)))));
    return 0;
  } catch (cause) {
    terminal.err(`dusk ${command.name}: ${sentence(cause, file)}`);
    return 2;
  }
}
