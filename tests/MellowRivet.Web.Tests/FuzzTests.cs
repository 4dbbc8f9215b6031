using MellowRivet.Web.Hosting.Fuzzing;

namespace MellowRivet.Web.Tests;

public sealed class FuzzTests(DemoServer server) : IClassFixture<DemoServer>
{
    // As many as the six minutes of all the tests allow; `./rivet fuzz` sends as many as one likes (docs/reliability.md).
    [Fact]
    public async Task Made_up_requests_meet_no_fault_of_ours()
    {
        var fuzzed = await Fuzz.SendAsync(server.Services, server.Address, 3_000, seed: 20, insiders: 30, default);
        fuzzed.Failed.ShouldBeEmpty($"{fuzzed}");
        fuzzed.ByStatus.Values.Sum().ShouldBe(3_000);
        new[] { 200, 302, 400, 404, 405, 422 }.Except(fuzzed.ByStatus.Keys).ShouldBeEmpty($"{fuzzed}");
    }
}
