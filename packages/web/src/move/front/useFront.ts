import { AllGiven, FrontView, LegView } from '@wanderon/contract';
import { useQuery, UseQueryResult } from '@tanstack/react-query';
import { useEffect, useState } from 'react';
import { call } from '../../api';

/** Milliseconds for which nothing is changed before what follows is worked out anew. */
const PAUSE = 250;

/** What follows from what was given; of what was given before, until it is known. `given`: null where what was kept is shown. */
export function useFront(leg: LegView, given: AllGiven | null): UseQueryResult<FrontView> & { readonly isBehind: boolean } {
  const wanted = JSON.stringify(given);
  const [asked, setAsked] = useState(wanted);
  useEffect(() => {
    const timer = window.setTimeout(() => setAsked(wanted), PAUSE);
    return () => window.clearTimeout(timer);
  }, [wanted]);
  const query = useQuery({
    queryKey: ['front', leg.id, leg.survey, leg.said, asked],
    queryFn: () => call<FrontView>('POST', `/api/legs/${leg.id}/front`, { given: JSON.parse(asked) as AllGiven | null }),
    placeholderData: (previous, before) => (before?.queryKey[1] === leg.id ? previous : undefined),
  });
  return { ...query, isBehind: asked !== wanted || query.isPlaceholderData };
}
