"""When nodes of a set are ended, and when all of them begin again."""

from itertools import pairwise

import pytest

from dolmetsch.command.cluster.rejoining import APART_SECONDS, LONGEST, NONE_SECONDS, PAUSE, Rejoining
from dolmetsch.command.telling import TroubleError


class Node:
    def __init__(self):
        self.group, self.asked, self.killed = "Primary", 0, 0

    def find_group(self):
        self.asked += 1
        return self.group

    def kill(self):
        self.killed += 1


class Cluster:
    """Three nodes that serve, and a clock."""

    def __init__(self, error=None):
        self.nodes, self.at, self.error, self.begun = [Node() for _ in range(3)], 100.0, error, []
        self.rejoining = Rejoining(self.nodes, self.begin, now=lambda: self.at)

    def begin(self):
        # none may run then
        assert all(node.killed > len(self.begun) for node in self.nodes)
        self.begun.append(self.at)
        if self.error:
            raise self.error

    def say(self, *groups):
        for node, group in zip(self.nodes, groups, strict=True):
            node.group = group

    def go_on(self, seconds):
        until = self.at + seconds
        while self.at < until:
            self.rejoining.look()
            self.at += 0.5

    @property
    def killed(self):
        return [node.killed for node in self.nodes]


def test_nodes_are_asked_every_three_seconds_and_those_that_serve_are_left_alone():
    cluster = Cluster()
    cluster.go_on(600)
    assert [node.asked for node in cluster.nodes] == [600 / PAUSE] * 3
    assert (cluster.killed, cluster.begun) == ([0, 0, 0], [])


@pytest.mark.parametrize("group", ["Disconnected", "non-Primary"])
def test_a_node_that_runs_apart_from_the_others_is_ended_and_only_after_a_while(group, capsys):
    cluster = Cluster()
    cluster.say("Primary", group, "Primary")
    cluster.go_on(APART_SECONDS)
    assert cluster.killed == [0, 0, 0]
    cluster.go_on(PAUSE)
    assert (cluster.killed, cluster.begun) == ([0, 1, 0], [])
    assert f"Node 2 is apart from the others ({group}); ending it" in capsys.readouterr().out
    # as long again for the next time
    cluster.go_on(APART_SECONDS - PAUSE)
    assert cluster.killed == [0, 1, 0]


def test_one_that_comes_back_in_time_begins_anew_and_one_that_does_not_answer_is_left_to_its_start():
    cluster = Cluster()
    for _ in range(5):
        cluster.say("Primary", "non-Primary", None)
        cluster.go_on(APART_SECONDS - PAUSE)
        cluster.say("Primary", "Primary", None)
        cluster.go_on(PAUSE)
    assert (cluster.killed, cluster.begun) == ([0, 0, 0], [])


def test_where_none_serves_for_long_all_are_ended_and_begin_again(capsys):
    cluster = Cluster()
    cluster.go_on(100)
    cluster.say("Disconnected", "non-Primary", None)
    cluster.go_on(NONE_SECONDS - 2 * PAUSE)
    assert (cluster.killed, cluster.begun) == ([0, 0, 0], [])
    cluster.go_on(4 * PAUSE)
    assert (cluster.killed, len(cluster.begun)) == ([1, 1, 1], 1)
    said = capsys.readouterr().out
    assert "No node has served for" in said
    assert "The nodes have begun again." in said


@pytest.mark.parametrize("error", [None, TroubleError("port taken"), OSError("no room")])
def test_it_is_tried_again_and_again_with_growing_pauses_until_one_serves(error, capsys):
    cluster = Cluster(error)
    cluster.say(None, None, None)
    cluster.go_on(6 * LONGEST)
    pauses = [later - earlier for earlier, later in pairwise(cluster.begun)]
    assert [round(pause / NONE_SECONDS) for pause in pauses][:6] == [2, 4, 8, 16, 16, 16]
    assert ("They did not come up; trying again later." in capsys.readouterr().out) is bool(error)
    # once one has served the first pause is the short one again
    cluster.say("Primary", None, None)
    cluster.go_on(2 * PAUSE)
    cluster.say(None, None, None)
    before, begun = len(cluster.begun), cluster.at
    cluster.go_on(NONE_SECONDS + 2 * PAUSE)
    assert len(cluster.begun) == before + 1
    assert cluster.begun[-1] - begun <= NONE_SECONDS + PAUSE


def test_how_long_one_was_apart_counts_from_when_others_serve_again():
    cluster = Cluster()
    cluster.say("Primary", "Disconnected", "Primary")
    cluster.go_on(APART_SECONDS - PAUSE)
    cluster.say("non-Primary", "Disconnected", "non-Primary")
    cluster.go_on(NONE_SECONDS + 2 * PAUSE)
    assert len(cluster.begun) == 1
    killed = cluster.killed
    cluster.say("Primary", "Disconnected", "Primary")
    cluster.go_on(APART_SECONDS)
    assert cluster.killed == killed
