import { Command, CommanderError } from 'commander';
import { calibrationCommands } from './commands/calibrationCommands.ts';
import { chartCommands } from './commands/chartCommands.ts';
import { checkCommands } from './commands/checkCommands.ts';
import { fileCommands } from './commands/fileCommands.ts';
import { lightCommands } from './commands/lightCommands.ts';
import { profileCommands } from './commands/profileCommands.ts';
import { simulateCommands } from './commands/simulateCommands.ts';
import { UsageError } from './usageError.ts';

/** `melto`: core, paper and simulator without a browser or database. Exit 0 done, 1 does not conform, 2 wrong use. */
export async function melto(argv: readonly string[]): Promise<number> {
  const program = new Command('melto')
    .description('Charts, readings and profiles of printers')
    .exitOverride();
  program.configureOutput({ writeErr: (text) => process.stderr.write(text) });
  let status = 0;
  const setStatus = (own: number): void => {
    status = own;
  };
  chartCommands(program);
  simulateCommands(program);
  calibrationCommands(program, setStatus);
  lightCommands(program);
  profileCommands(program);
  checkCommands(program, setStatus);
  fileCommands(program);

  try {
    await program.parseAsync(argv, { from: 'user' });
    return status;
  } catch (error) {
    if (error instanceof CommanderError) return error.exitCode === 0 ? 0 : 2;
    if (error instanceof UsageError) {
      process.stderr.write(`${error.message}\n`);
      return 2;
    }
    throw error;
  }
}
