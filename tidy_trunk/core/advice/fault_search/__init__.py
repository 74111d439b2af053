"""What is wrong: a symptom, what could cause it in this plan, and the shortest order to find out."""

from tidy_trunk.core.advice.fault_search.search import Answer, FaultTest, Search, search
from tidy_trunk.core.advice.fault_search.suspects import Suspect, suspects
from tidy_trunk.core.advice.fault_search.symptoms import Symptom, symptom_in

__all__ = ["Answer", "FaultTest", "Search", "Suspect", "Symptom", "search", "suspects", "symptom_in"]
