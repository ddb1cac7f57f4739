from golden_pivot.cli import main

main()
