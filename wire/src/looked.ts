import { IsBoolean, IsIn } from 'class-validator';
import { Id, Nullable, ObjectOf, Within, Words } from './fields.ts';
import { LOOKS, type LookName } from './looks.ts';

/** A place in a picture, in its own pixels. */
export class LookedAt {
  @Within('Where it is looked', 0, 100_000)
  x!: number;

  @Within('Where it is looked', 0, 100_000)
  y!: number;
}

const OnOrOff = (): PropertyDecorator => IsBoolean({ message: 'A look is on or off' });

/** How a picture is looked at, told from one window to those that follow it. It is of the moment: no file keeps it. */
export class Looked {
  /** The browser that is worked in: its own windows know already. */
  @Words('The device', 80)
  device!: string;

  @Id('A painting')
  paintingId!: string;

  @Nullable()
  @Id('A reference')
  referenceId!: string | null;

  @IsIn(LOOKS, { message: `A look is one of ${LOOKS.join(', ')}` })
  look!: LookName;

  /** Deviation of the squint, px on the screen. */
  @Within('A squint', 1, 100)
  squintPx!: number;

  @OnOrOff() grey!: boolean;
  @OnOrOff() squint!: boolean;
  @OnOrOff() asPaint!: boolean;
  @OnOrOff() mirror!: boolean;
  @OnOrOff() grid!: boolean;
  @OnOrOff() marks!: boolean;
  @OnOrOff() lost!: boolean;

  @Nullable()
  @ObjectOf('A place is across and down', () => LookedAt)
  at!: LookedAt | null;
}
