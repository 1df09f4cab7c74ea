import type { Person } from '@treadle/contract'
import { ActionIcon, Button, Menu, useComputedColorScheme, useMantineColorScheme } from '@mantine/core'
import { useIsMutating } from '@tanstack/react-query'
import { IconKeyboard, IconLamp, IconMenu2, IconSun } from '@tabler/icons-react'
import { useEffect, useState } from 'react'
import { Link, NavLink, Outlet, useLocation, useNavigate } from 'react-router'
import { KeyHelp } from './KeyHelp.tsx'
import { isField } from '../pedal/Pedal.tsx'
import { isTurnOpen } from '../job/ownRows.ts'
import { request } from '../data/api.ts'
import { useServerState } from '../data/away.ts'
import { useNewPages } from '../data/newPages.ts'
import { benchName, setBench } from '../data/atTheBench.ts'
import { Find } from './Find.tsx'
import { useTimerCalls } from '../surfaces/clean/timerCalls.ts'
import { resumeWatch } from '../hear/watchHost.ts'
import { queryClient, usePeople, useSettings } from '../data/queries.ts'
import { deviceZone } from '../data/workshopZone.ts'
import styles from './Shell.module.css'

const PLACES = [
  ['/', 'Bench'],
  ['/clocks', 'Clocks'],
  ['/reckoner', 'Reckoner'],
  ['/drawers', 'Drawers'],
  ['/practice', 'Practice'],
  ['/settings', 'Settings'],
] as const

/** What stands about every page: the name, the places, who is at the bench, and the banner while the server is away. */
export function Shell() {
  const [help, setHelp] = useState(false)
  const { pathname, search } = useLocation()
  useTimerCalls()
  useEffect(resumeWatch, [])
  const { data: settings } = useSettings()
  // Times that stood by this device's clock are shown anew by the workshop's, where that is another.
  const here = deviceZone()
  const zoneElsewhere = settings && settings.timeZone !== here ? settings.timeZone : ''
  useHeldWhileSending()
  useWelcome()
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      if (event.key === '?' && !isField(event.target)) setHelp(true)
    }
    window.addEventListener('keydown', onKey)
    return () => window.removeEventListener('keydown', onKey)
  }, [])
  return (
    <>
      <a className="skip" href="#main">
        Skip to the work
      </a>
      <header className={styles.header}>
        <Link to="/" className={styles.name}>
          Treadle
        </Link>
        <Menu>
          <Menu.Target>
            <ActionIcon variant="subtle" size="xl" aria-label="Places" className={styles.menu}>
              <IconMenu2 />
            </ActionIcon>
          </Menu.Target>
          <Menu.Dropdown>
            {PLACES.map(([to, title]) => (
              <Menu.Item key={to} component={Link} to={to}>
                {title}
              </Menu.Item>
            ))}
            <Menu.Item component={Link} to="/take-in">
              Take in a clock
            </Menu.Item>
          </Menu.Dropdown>
        </Menu>
        <nav aria-label="Places" className={styles.places}>
          {PLACES.map(([to, title]) => (
            <NavLink
              key={to}
              to={to}
              end={to === '/'}
              className={({ isActive }) =>
                isActive || (to === '/' && pathname.startsWith('/jobs'))
                  ? `${styles.place} ${styles.here}`
                  : styles.place
              }
            >
              {title}
            </NavLink>
          ))}
        </nav>
        <div className={styles.tools}>
          <Find />
          <AtTheBench />
          <ActionIcon
            variant="subtle"
            size="xl"
            aria-label="Keys and pedal"
            className={styles.wide}
            onClick={() => setHelp(true)}
          >
            <IconKeyboard />
          </ActionIcon>
          <ThemeSwitch />
          <Button component={Link} to="/take-in" className={styles.takeIn}>
            Take in a clock
          </Button>
        </div>
      </header>
      <AwayBanner />
      <RenewedBanner />
      <main id="main" tabIndex={-1} className={styles.main} data-at={`${pathname}${search}`}>
        <Outlet key={zoneElsewhere} />
      </main>
      <KeyHelp opened={help} onClose={() => setHelp(false)} />
    </>
  )
}

/** An empty workshop asks first who works in it: nothing is written down by “somebody”. */
function useWelcome() {
  const { data: people } = usePeople()
  const { pathname } = useLocation()
  const navigate = useNavigate()
  const nobody = people?.length === 0
  useEffect(() => {
    if (nobody && pathname !== '/welcome') void navigate('/welcome', { replace: true })
  }, [nobody, pathname, navigate])
}

/**
 * A page is not closed unasked while a change waits for the server: it would be lost with the page. It is asked as the
 * page goes: between two changes of one row nothing is on its way for a moment, and the second still waits.
 */
function useHeldWhileSending() {
  useEffect(() => {
    const ask = (event: BeforeUnloadEvent) => {
      if (queryClient.isMutating() > 0 || isTurnOpen()) event.preventDefault()
    }
    window.addEventListener('beforeunload', ask)
    return () => window.removeEventListener('beforeunload', ask)
  }, [])
}

function ThemeSwitch() {
  const { setColorScheme } = useMantineColorScheme()
  const dark = useComputedColorScheme('light') === 'dark'
  return (
    <ActionIcon
      variant="subtle"
      size="xl"
      aria-label={dark ? 'Enamel: light theme' : 'Lamp: dark theme'}
      onClick={() => setColorScheme(dark ? 'light' : 'dark')}
    >
      {dark ? <IconSun /> : <IconLamp />}
    </ActionIcon>
  )
}

function AtTheBench() {
  const { data: people } = usePeople()
  const [name, setName] = useState(benchName)
  const active = people?.filter((p) => p.active) ?? []
  const choose = (who: Person) => {
    setBench(who)
    setName(who.name)
  }
  const first = active[0]
  useEffect(() => {
    if (name === '' && first) setBench(first)
  }, [name, first])
  if (active.length === 0) return null
  return (
    <Menu>
      <Menu.Target>
        <Button variant="subtle" className={styles.who}>
          <span className={styles.whoWords}>At the bench:&nbsp;</span>
          {(name === '' ? first : active.find((p) => p.name === name))?.initials ?? 'nobody'}
        </Button>
      </Menu.Target>
      <Menu.Dropdown>
        {active.map((p) => (
          <Menu.Item key={p.id} onClick={() => choose(p)}>
            {p.name}
          </Menu.Item>
        ))}
      </Menu.Dropdown>
    </Menu>
  )
}

/** The shop got a new version while this page was open: it goes on with that after one press, and nothing is lost. */
function RenewedBanner() {
  const renewed = useNewPages()
  // What waits for the server is sent first; what is typed and not kept yet outlives the change.
  const waits = useIsMutating() > 0
  if (!renewed) return null
  return (
    <div role="status" className={styles.renewed}>
      <span>
        <strong>The workshop has a new version of these pages.</strong> What you typed stays.
      </span>
      <Button disabled={waits} onClick={() => window.location.reload()}>
        {waits ? 'Go on: first what waits is kept' : 'Go on with it'}
      </Button>
    </div>
  )
}

function AwayBanner() {
  const state = useServerState()
  useEffect(() => {
    if (state !== 'away') return
    const timer = setInterval(() => {
      request('GET', '/health').then(
        () => queryClient.invalidateQueries(),
        () => undefined,
      )
    }, 2000)
    return () => clearInterval(timer)
  }, [state])
  if (state === 'here') return null
  if (state === 'full')
    return (
      <div role="status" className={styles.away}>
        <strong>The disk is full: nothing more is kept.</strong> All that was kept before can be read. What you typed
        since waits in this window, and is kept as soon as there is room: leave it open, and delete something large.
      </div>
    )
  return (
    <div role="status" className={styles.away}>
      <strong>The workshop’s server does not answer.</strong> What you typed is kept here and sent as soon as it is
      back. It is started again by itself; if this stays, see what the window says in which <code>npm start</code> runs.
    </div>
  )
}
