"""The ways of mending as they are typed, and what each is in a job."""

MENDINGS = {
    "best-cut": "mend.best_cut",
    "smooth-edges": "mend.level",
    "regrow": "mend.regrow",
    "courses": "mend.courses",
}
