import { ActionIcon, Tooltip, useComputedColorScheme, useMantineColorScheme } from '@mantine/core';
import { useLocalStorage } from '@mantine/hooks';
import { IconKeyboard, IconMoon, IconSun } from '@tabler/icons-react';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { Link, NavLink, Outlet, useLocation } from 'react-router';
import { keepQuery } from './api/queries';
import { Palette, openPalette } from './features/palette/Palette';
import { Shortcuts } from './features/palette/Shortcuts';
import { Mark } from './ui/Mark';

/** Wherever one is: that the shelf cannot be used, and where one is helped. */
function Trouble() {
  const { pathname } = useLocation();
  const { data } = useQuery({ ...keepQuery(), refetchInterval: 15_000 });
  if (!data?.trouble || pathname === '/keep') return null;
  return (
    <p className="shelf-trouble" role="alert">
      {data.trouble.message} {data.trouble.saved} <Link to="/keep">Go to Keep</Link>
    </p>
  );
}

/** The frame around every room: where one is, where one can go, and what is always to hand. */
export function App() {
  const { setColorScheme } = useMantineColorScheme();
  const dark = useComputedColorScheme('light') === 'dark';
  const [lastBench] = useLocalStorage<number | null>({ key: 'last-bench', defaultValue: null });
  const [help, setHelp] = useState(false);
  return (
    <div className="app">
      <a className="skip" href="#main">
        Skip to the page
      </a>
      <header className="masthead">
        <Link to="/" className="home">
          <Mark /> Golden Pivot
        </Link>
        <nav aria-label="Rooms">
          <NavLink to="/" end>
            Shelf
          </NavLink>
          <NavLink to="/library">Library</NavLink>
          <NavLink to="/desks">Desks</NavLink>
          <NavLink to="/practice">Practice</NavLink>
          <NavLink to="/programme">Programme</NavLink>
          <NavLink to="/book">Book</NavLink>
          <NavLink to="/keep">Keep</NavLink>
          {lastBench !== null && <NavLink to={`/bench/${lastBench}`}>Bench</NavLink>}
        </nav>
        <div className="tools">
          <button type="button" className="find" onClick={openPalette}>
            <span>Find a step or a routine</span> <kbd className="key">Ctrl K</kbd>
          </button>
          <Tooltip label="Keys (?)">
            <ActionIcon variant="subtle" color="gray" aria-label="Keys" onClick={() => setHelp(true)}>
              <IconKeyboard size={19} />
            </ActionIcon>
          </Tooltip>
          <Tooltip label={dark ? 'Day colours' : 'Night colours'}>
            <ActionIcon
              variant="subtle"
              color="gray"
              aria-label={dark ? 'Day colours' : 'Night colours'}
              onClick={() => setColorScheme(dark ? 'light' : 'dark')}
            >
              {dark ? <IconSun size={19} /> : <IconMoon size={19} />}
            </ActionIcon>
          </Tooltip>
        </div>
      </header>
      <Trouble />
      <main id="main">
        <Outlet />
      </main>
      <Palette />
      <Shortcuts opened={help} open={() => setHelp(true)} close={() => setHelp(false)} />
    </div>
  );
}
