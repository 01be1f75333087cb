import { OpenSheetView } from '@wanderon/contract';
import { Entry, unknownPanelWords } from '@wanderon/core';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useParams } from 'react-router';
import { ProblemError, call } from '../api';
import { HandSheet } from '../move/sheet/handSheet';
import { InVain } from '../move/sheet/inVain';
import { fullTime } from '../time';
import { Failed, Loading } from '../ui/states';
import { useToast } from '../ui/toast';

/** What does not stand over HTTP is not there. */
type Given = OpenSheetView['rows'][number]['entry'];

/** Milliseconds after which it is asked what others have ticked. */
const AGAIN = 15_000;

/** One handover sheet for somebody without an account: what to type, and nothing else. Ticks are everybody's. */
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
  const whole = (entry: Given): Entry | undefined => entry && { ...entry, priority: entry.priority, ttl: entry.ttl };
  const rows = (sheet.data?.rows ?? []).map(({ id, act, before, entry }) => ({ id, act, before: whole(before), entry: whole(entry) }));
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
            Handover sheet: {sheet.data.domain} at {sheet.data.host}
          </h1>
          <p className="mb-3 text-faded">
            {sheet.data.inPlace
              ? 'Only these rows: everything else in the zone stays as it is.'
              : 'The zone begins empty there; rows that the panel has made itself stay.'}{' '}
            {sheet.data.styleKnown ? 'Every field is written as this panel wants it.' : unknownPanelWords(sheet.data.domain)}{' '}
            <span className="print:hidden">This page is open until {fullTime(sheet.data.endsAt)}.</span>
          </p>
          <InVain warnings={sheet.data.warnings} />
          <HandSheet rows={rows} typed={sheet.data.typed} onTick={(row, typed) => tick.mutate({ row, typed })} slips={() => []} />
        </>
      )}
    </main>
  );
}
