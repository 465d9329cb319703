/** Which of the shell's panels are open. */
class Shell {
  finding = $state(false);
  help = $state(false);
}

export const shell = new Shell();
