// The joining page: sends the code, and never leaves it in an address.
const form = document.querySelector('form');
const code = document.querySelector('#code');
const device = document.querySelector('#device');
const said = document.querySelector('#said');
const button = document.querySelector('button');
const knock = document.querySelector('#knock');
const tag = document.querySelector('#tag');

const scanned = location.hash.slice(1).replace(/\D/g, '');
if (scanned) code.value = scanned.replace(/^(\d{3})/, '$1 ');
history.replaceState(null, '', '/');
device.value = /iPad|Tablet/i.test(navigator.userAgent)
  ? 'Tablet'
  : /Mobi|Android|iPhone/i.test(navigator.userAgent)
    ? 'Phone'
    : '';
(scanned ? device : code).focus();

form.addEventListener('submit', async (event) => {
  event.preventDefault();
  button.disabled = true;
  said.textContent = '';
  try {
    const response = await fetch('/join', {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify({ code: code.value, name: device.value }),
    });
    if (response.ok) return location.replace('/');
    const { error, wait } = await response.json();
    said.textContent = error;
    setTimeout(() => (button.disabled = false), Math.min(wait ?? 0, 60) * 1000);
  } catch {
    said.textContent = 'The computer does not answer. Is this device on the same network?';
    button.disabled = false;
  }
});

// Without a code: the host sees the name and four figures, and lets this device in.
knock.addEventListener('click', async () => {
  knock.disabled = true;
  said.textContent = '';
  try {
    const asked = await fetch('/join/knock', {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify({ name: device.value }),
    });
    const { id, tag: shown } = await asked.json();
    tag.textContent = `Asked. On the computer, under Connect, let in the device that shows ${shown}.`;
    for (;;) {
      await new Promise((resolve) => setTimeout(resolve, 1000));
      const answer = await fetch(`/join/knock/${id}`);
      if (answer.status === 200) return location.replace('/');
      if (answer.status === 202) continue;
      said.textContent = (await answer.json()).error;
      break;
    }
  } catch {
    said.textContent = 'The computer does not answer. Is this device on the same network?';
  }
  tag.textContent = '';
  knock.disabled = false;
});
