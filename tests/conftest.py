"""What every test goes by."""

from hypothesis import HealthCheck, settings

# how fast examples come and run tells how busy the machine is; speed is measured in benchmarks/
settings.register_profile("ours", deadline=None, suppress_health_check=[HealthCheck.too_slow])
settings.load_profile("ours")
