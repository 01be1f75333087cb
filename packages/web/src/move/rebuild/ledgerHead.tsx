import { Link } from 'react-router';
import { Button } from '../../ui/button';
import { LedgerProps } from '../movePlace';
import { PlanExports } from './planExports';

interface Props {
  readonly title: string;
  readonly move: LedgerProps['move'];
  readonly leg: LedgerProps['leg'];
  /** Nothing is rebuilt at a new host: records change where they are. */
  readonly inPlace: boolean;
  /** Whether anything can be changed here. */
  readonly may: boolean;
  readonly mayPush: boolean;
  readonly onChoose: () => void;
  readonly onNew: () => void;
  readonly onUndo: () => void;
  readonly onRedo: () => void;
  readonly onPush: () => void;
}

/** What the ledger comes to, and what can be done with all of it. */
export function LedgerHead({ title, move, leg, inPlace, may, mayPush, onChoose, onNew, onUndo, onRedo, onPush }: Props) {
  const { counts, rulings, total } = leg;
  const byHand = !inPlace && leg.byHand;
  const reading = rulings.length < total;
  return (
    <div className="mb-2 flex items-start justify-between gap-6 max-md:flex-col max-md:gap-2">
      <div>
        <h2 className="text-[1.25rem] leading-tight">{title}</h2>
        <p className="text-faded">
          {inPlace ? `${counts.carry} stay` : `${counts.carry} kept`}, {counts.repoint} changed, {counts.drop} left out, {counts.new} added
          {counts.remarks > 0 && ` · ${counts.remarks} ${counts.remarks === 1 ? 'remark' : 'remarks'}`}
          {reading && ` · ${rulings.length} of ${total} rows are read`}
          {!reading && <PlanExports rulings={rulings} domain={move.domain} />}
        </p>
      </div>
      {may && (
        <div className="flex shrink-0 gap-2 max-md:flex-wrap">
          {!leg.isBack && (
            <Button onClick={onChoose} title="Add to it, or choose another way">
              What you were given
            </Button>
          )}
          <Button onClick={onNew}>New record set</Button>
          <Button disabled={!leg.undoable} onClick={onUndo} title={leg.undoable ? `Undo ${leg.undoable}` : 'Nothing to undo'}>
            Undo
          </Button>
          <Button disabled={!leg.redoable} onClick={onRedo} title={leg.redoable ? `Do ${leg.redoable} again` : 'Nothing to do again'}>
            Redo
          </Button>
          {byHand && (
            <Link
              to={`/moves/${move.id}/sheet`}
              className="rounded-[3px] border border-accent bg-accent px-2.5 py-1 leading-tight text-on-accent hover:brightness-110"
            >
              Handover sheet
            </Link>
          )}
          {!leg.pushed && !inPlace && !byHand && (
            <Button kind="main" disabled={!mayPush} title={counts.stops > 0 ? 'A remark stops the push' : undefined} onClick={onPush}>
              Push
            </Button>
          )}
        </div>
      )}
    </div>
  );
}
