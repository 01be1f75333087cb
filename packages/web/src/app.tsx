import { Suspense, lazy, useState } from 'react';
import { Navigate, Route, Routes, useMatch } from 'react-router';
import { useMe } from './api';
import { DeskPlace } from './desk/desk';
import { HostsPlace } from './hosts/hosts';
import { MovePlace } from './move/movePlace';
import { MovesPlace } from './moves/moves';
import { Shell } from './shell/shell';
import { SignIn } from './signIn/signIn';
import { Failed, Loading } from './ui/states';
import { ToastPlace } from './ui/toast';

// Read when they are opened: most who work here never open them in a session, and who has a link opens nothing else.
const HostPlace = lazy(() => import('./hosts/hostPage').then(({ HostPlace: place }) => ({ default: place })));
const SurveyPlace = lazy(() => import('./sweeps/surveyPlace').then(({ SurveyPlace: place }) => ({ default: place })));
const SweepPlace = lazy(() => import('./sweeps/sweep').then(({ SweepPlace: place }) => ({ default: place })));
const SweepsPlace = lazy(() => import('./sweeps/sweeps').then(({ SweepsPlace: place }) => ({ default: place })));
const FirstThings = lazy(() => import('./account/first').then(({ FirstThings: place }) => ({ default: place })));
const AccountPlace = lazy(() => import('./account/account').then(({ AccountPlace: place }) => ({ default: place })));
const PeoplePlace = lazy(() => import('./people/people').then(({ PeoplePlace: place }) => ({ default: place })));
const TrailPlace = lazy(() => import('./people/trailPlace').then(({ TrailPlace: place }) => ({ default: place })));
const OpenSheet = lazy(() => import('./openSheet/openSheet').then(({ OpenSheet: place }) => ({ default: place })));

/** A link to a sheet is for people without an account: no session is asked for. */
export function App() {
  const shared = useMatch('/sheet/:secret');
  if (!shared) return <Signed />;
  return (
    <ToastPlace>
      <Routes>
        <Route
          path="/sheet/:secret"
          element={
            <Suspense fallback={<Loading what="the sheet" />}>
              <OpenSheet />
            </Suspense>
          }
        />
      </Routes>
    </ToastPlace>
  );
}

function Signed() {
  const me = useMe();
  // Recovery codes stand on the page until they were kept, whatever else is known meanwhile.
  const [codes, setCodes] = useState(false);
  if (me.isPending)
    return (
      <div className="p-8">
        <Loading what="who you are" />
      </div>
    );
  // Who was known stays so while the server cannot be asked.
  if (me.isError && me.data === undefined)
    return (
      <div className="mx-auto max-w-lg p-8">
        <Failed error={me.error} retry={() => void me.refetch()} />
      </div>
    );
  if (!me.data) return <SignIn />;
  if (me.data.must !== null || codes)
    return (
      <Suspense fallback={<Loading what="your account" />}>
        <FirstThings me={me.data} onCodes={setCodes} />
      </Suspense>
    );
  return (
    <ToastPlace>
      <Shell me={me.data}>
        <Routes>
          <Route path="/" element={<DeskPlace me={me.data} />} />
          <Route path="/moves" element={<MovesPlace />} />
          <Route path="/moves/:id/:chapter?" element={<MovePlace me={me.data} />} />
          <Route path="/hosts" element={<HostsPlace me={me.data} />} />
          {[
            { path: '/moves/sweeps', what: 'the surveys of many domains', place: <SweepsPlace me={me.data} /> },
            { path: '/moves/sweeps/:id', what: 'the domains', place: <SweepPlace me={me.data} /> },
            { path: '/surveys/:id', what: 'the survey', place: <SurveyPlace me={me.data} /> },
            { path: '/hosts/:id/:act?', what: 'the host', place: <HostPlace me={me.data} /> },
            { path: '/account', what: 'your account', place: <AccountPlace me={me.data} /> },
            { path: '/people', what: 'who there is', place: <PeoplePlace me={me.data} /> },
            { path: '/trail', what: 'what is on record', place: <TrailPlace me={me.data} /> },
          ].map(({ path, what, place }) => (
            <Route key={path} path={path} element={<Suspense fallback={<Loading what={what} />}>{place}</Suspense>} />
          ))}
          <Route path="*" element={<Navigate to="/" replace />} />
        </Routes>
      </Shell>
    </ToastPlace>
  );
}
