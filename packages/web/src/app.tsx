import { useState } from 'react';
import { Navigate, Route, Routes, useMatch } from 'react-router';
import { useMe } from './api';
import { DeskPlace } from './desk/desk';
import { HostsPlace } from './hosts/hosts';
import { MovePlace } from './move/movePlace';
import { MovesPlace } from './moves/moves';
import { Shell } from './shell/shell';
import { SignIn } from './signIn/signIn';
import { part } from './ui/part';
import { Failed, Loading } from './ui/states';
import { ToastPlace } from './ui/toast';

// Read when they are opened: most who work here never open them in a session, and who has a link opens nothing else.
const HostPlace = part('the host', async () => (await import('./hosts/hostPage')).HostPlace);
const SurveyPlace = part('the survey', async () => (await import('./sweeps/surveyPlace')).SurveyPlace);
const SweepPlace = part('the domains', async () => (await import('./sweeps/sweep')).SweepPlace);
const SweepsPlace = part('the surveys of many domains', async () => (await import('./sweeps/sweeps')).SweepsPlace);
const FirstThings = part('your account', async () => (await import('./account/first')).FirstThings);
const AccountPlace = part('your account', async () => (await import('./account/account')).AccountPlace);
const ResolversPlace = part('the resolvers', async () => (await import('./resolvers/resolvers')).ResolversPlace);
const SettingsPlace = part('the settings', async () => (await import('./settings/settings')).SettingsPlace);
const PeoplePlace = part('who there is', async () => (await import('./people/people')).PeoplePlace);
const TrailPlace = part('what is on record', async () => (await import('./people/trailPlace')).TrailPlace);
const Begin = part('the first account', async () => (await import('./signIn/begin')).Begin);
const OpenSheet = part('the sheet', async () => (await import('./openSheet/openSheet')).OpenSheet);

/** Links to a sheet and to the first account are for people without one: no session is asked for. */
export function App() {
  const shared = useMatch('/sheet/:secret');
  const first = useMatch('/begin/:secret');
  if (first) return <Begin secret={first.params.secret ?? ''} />;
  if (!shared) return <Signed />;
  return (
    <ToastPlace>
      <Routes>
        <Route path="/sheet/:secret" element={<OpenSheet />} />
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
  if (me.data.must !== null || codes) return <FirstThings me={me.data} onCodes={setCodes} />;
  return (
    <ToastPlace>
      <Shell me={me.data}>
        <Routes>
          <Route path="/" element={<DeskPlace me={me.data} />} />
          <Route path="/moves" element={<MovesPlace />} />
          <Route path="/moves/:id/:chapter?" element={<MovePlace me={me.data} />} />
          <Route path="/hosts" element={<HostsPlace me={me.data} />} />
          <Route path="/moves/sweeps" element={<SweepsPlace me={me.data} />} />
          <Route path="/moves/sweeps/:id" element={<SweepPlace me={me.data} />} />
          <Route path="/surveys/:id" element={<SurveyPlace me={me.data} />} />
          <Route path="/hosts/:id/:act?" element={<HostPlace me={me.data} />} />
          <Route path="/resolvers" element={<ResolversPlace me={me.data} />} />
          <Route path="/settings" element={<SettingsPlace me={me.data} />} />
          <Route path="/account" element={<AccountPlace me={me.data} />} />
          <Route path="/people" element={<PeoplePlace me={me.data} />} />
          <Route path="/trail" element={<TrailPlace me={me.data} />} />
          <Route path="*" element={<Navigate to="/" replace />} />
        </Routes>
      </Shell>
    </ToastPlace>
  );
}
