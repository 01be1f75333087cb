import { OpenSheetView } from '@wanderon/contract';
import { Entry, SheetRow } from '@wanderon/core';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useParams } from 'react-router';
import { ProblemError, call } from '../api';
import { HandSheet } from '../move/sheet/handSheet';
import { InVain } from '../move/sheet/inVain';
import { RegistrarSteps } from '../move/sheet/registrarSteps';
import { WayThereLine } from '../move/where/wayThereLine';
import { fullTime } from '../time';
import { Failed, Loading } from '../ui/states';
import { useToast } from '../ui/toast';

/** What does not stand over HTTP is not there. */
type ZoneSheet = Exclude<OpenSheetView['content'], { sheet: 'registrar' }>;
type Given = ZoneSheet['rows'][number]['entry'];

/** Milliseconds after which it is asked what others have ticked. */
const AGAIN = 15_000;

/** One sheet for somebody without an account: what to type, and nothing else. Ticks are everybody's. */
export function OpenSheet() {
  const { secret = '' } = useParams();
  const { fail } = useToast();
  const client = useQueryClient();
  const sheet = useQuery({
    queryKey: ['open sheet', secret],
    queryFn: () => call<OpenSheetView>('GET', `/api/sheets/${encodeURIComponent(secret)}`),
    retry: (count, error) => count < 2 && !(error instanceof ProblemError && error.problem.status === 404),
    refetchInterval: AGAIN,
  });
  const tick = useMutation({
    mutationFn: (one: { row: string; typed: boolean }) => call<OpenSheetView>('POST', `/api/sheets/${encodeURIComponent(secret)}/typed`, one),
    // What is ticked is seen at once; what the server says of it counts.
    onMutate: ({ row, typed }) =>
      client.setQueryData<OpenSheetView>(
        ['open sheet', secret],
        (before) => before && { ...before, typed: typed ? [...before.typed, row] : before.typed.filter((one) => one !== row) },
      ),
    onError: (error) => {
      fail(error);
      void sheet.refetch();
    },
  });
  return (
    <main className="mx-auto w-full max-w-5xl px-4 py-6">
      {sheet.isPending && <Loading what="the sheet" />}
      {sheet.isError && <Failed error={sheet.error} />}
      {sheet.data && (
        <>
          <h1 className="text-[1.25rem] leading-tight">
            {TITLES[sheet.data.content.sheet]}: {sheet.data.domain} at {sheet.data.host}
          </h1>
          <p className="mb-1 text-faded">
            {introOf(sheet.data)} <span className="print:hidden">This page is open until {fullTime(sheet.data.endsAt)}.</span>
          </p>
          {sheet.data.where && <WayThereLine way={wayOf(sheet.data.where)} name={sheet.data.host} />}
          <InVain warnings={sheet.data.warnings} />
          <div className="mt-3">
            {sheet.data.content.sheet === 'registrar' ? (
              <RegistrarSteps
                steps={sheet.data.content.steps.map((step) => ({ ...step, copy: step.copy }))}
                done={new Set(sheet.data.typed)}
                onTick={(row, typed) => tick.mutate({ row, typed })}
              />
            ) : (
              <HandSheet rows={rowsOf(sheet.data.content)} typed={sheet.data.typed} onTick={(row, typed) => tick.mutate({ row, typed })} slips={() => []} />
            )}
          </div>
        </>
      )}
    </main>
  );
}

const TITLES = { records: 'Handover sheet', lower: 'TTLs to lower', raise: 'TTLs to raise', registrar: 'Nameservers' };

function introOf({ content, domain }: OpenSheetView): string {
  if (content.sheet === 'registrar') return `Set the nameservers of ${domain} to exactly these ${content.names}.`;
  if (content.sheet !== 'records') return 'Only the TTL of these records changes. Their values, and everything else in the zone, stay.';
  const what = content.inPlace
    ? 'Only these rows: everything else in the zone stays as it is.'
    : 'The zone begins empty there; rows that the panel has made itself stay.';
  return `${what} ${content.style}`;
}

const wayOf = ({ link, clicks, first }: NonNullable<OpenSheetView['where']>) => ({ link, clicks, first });

function rowsOf({ rows }: ZoneSheet): SheetRow[] {
  const filled = (entry: Given): Entry | undefined => entry && { ...entry, priority: entry.priority, ttl: entry.ttl };
  return rows.map(({ id, act, before, entry, whole }) => ({
    ...{ id, act, before: filled(before), entry: filled(entry) },
    whole: whole && { name: whole.name, value: whole.value },
  }));
}
