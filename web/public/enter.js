// Hands over the key of a link, which stands behind its # and so in no address that is sent, kept in a log or told to another page.
const said = document.getElementById('said')
const wanted = new URLSearchParams(location.search).get('page') ?? '/'
const page = /^\/[a-z0-9/-]*$/.test(wanted) && !wanted.startsWith('//') ? wanted : '/'

async function enter() {
  const answer = await fetch('/api/enter', {
    method: 'POST',
    headers: { 'Content-Type': 'application/json' },
    body: JSON.stringify({ key: location.hash.slice(1) }),
  })
  if (answer.ok) location.replace(page)
  else said.textContent = (await answer.json()).detail
}

enter().catch(() => (said.textContent = 'There is no connection. Open the link again.'))
