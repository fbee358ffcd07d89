// The joining page: sends the code, and never leaves it in an address.
const form = document.querySelector('form');
const code = document.querySelector('#code');
const device = document.querySelector('#device');
const said = document.querySelector('#said');
const button = document.querySelector('button');

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
