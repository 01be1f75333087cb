import { Me, MoveView, SurveyPage } from '@wanderon/contract';
import { showName } from '@wanderon/core';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { Link, useNavigate, useParams } from 'react-router';
import { call } from '../api';
import { SurveyReport } from '../move/survey/survey';
import { COARSE, useNow } from '../time';
import { Button } from '../ui/button';
import { Failed, Loading } from '../ui/states';
import { useToast } from '../ui/toast';

/** One survey alone, as it was taken; from here its domain can be moved. */
export function SurveyPlace({ me }: { me: Me }) {
  const { id = '' } = useParams();
  const page = useQuery({ queryKey: ['survey', id], queryFn: () => call<SurveyPage>('GET', `/api/surveys/${id}`), staleTime: Infinity });
  const now = useNow(COARSE);
  const go = useNavigate();
  const queries = useQueryClient();
  const { fail } = useToast();
  const begin = useMutation({
    mutationFn: (domain: string) => call<MoveView>('POST', '/api/moves', { domain, scope: 'whole' }),
    onSuccess: (move) => {
      void queries.invalidateQueries({ queryKey: ['moves'] });
      void go(`/moves/${move.id}/survey`);
    },
    onError: fail,
  });
  if (page.isPending)
    return (
      <div className="px-4 py-5">
        <Loading what="the survey" />
      </div>
    );
  if (page.isError)
    return (
      <div className="mx-auto w-full max-w-xl px-4 py-5">
        <Failed error={page.error} retry={() => void page.refetch()} />
      </div>
    );
  const { domain, survey, move } = page.data;
  return (
    <div data-scrolls className="h-[calc(100vh-2.45rem)] overflow-y-auto max-md:h-auto">
      <div className="mx-auto w-full max-w-[1240px] px-4 py-4">
        <button type="button" className="cursor-pointer text-sm text-faded hover:text-accent" onClick={() => void go(-1)}>
          Back
        </button>
        <h1 className="mb-3">
          {showName(domain)} {showName(domain) !== domain && <span className="mono text-base font-normal text-faded">{domain}</span>}
        </h1>
        <SurveyReport
          survey={survey}
          domain={domain}
          move={undefined}
          may={false}
          now={now}
          actions={
            move ? (
              <Link to={`/moves/${move}/survey`} className="text-accent hover:underline">
                Its move
              </Link>
            ) : (
              me.role !== 'viewer' && (
                <Button kind="main" disabled={begin.isPending} onClick={() => begin.mutate(domain)}>
                  Move this domain
                </Button>
              )
            )
          }
        />
      </div>
    </div>
  );
}
