"""Controls that know nothing of the job."""
