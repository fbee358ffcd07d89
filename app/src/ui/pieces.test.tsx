import { TamaguiProvider } from '@tamagui/core';
import { render, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { Button } from './pieces';
import { config } from './tamagui.config';

const shown = (button: React.ReactNode) =>
  render(
    <TamaguiProvider config={config} defaultTheme="dark">
      {button}
    </TamaguiProvider>,
  );

test('a button says its name, tells its state and is pressed with the keyboard', async () => {
  const press = jest.fn();
  shown(
    <Button label="Undo" pressed onPress={press}>
      x
    </Button>,
  );
  const button = screen.getByRole('button', { name: 'Undo', pressed: true });
  await userEvent.tab();
  expect(document.activeElement).toBe(button);
  await userEvent.click(button);
  expect(press).toHaveBeenCalledTimes(1);
});

test('a button that is off does nothing', async () => {
  const press = jest.fn();
  shown(
    <Button label="Undo" disabled onPress={press}>
      x
    </Button>,
  );
  await userEvent.click(screen.getByRole('button', { name: 'Undo' }));
  expect(press).not.toHaveBeenCalled();
});
