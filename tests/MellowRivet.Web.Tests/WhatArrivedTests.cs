using MellowRivet.Web.Hosting;
using Microsoft.AspNetCore.Http;

namespace MellowRivet.Web.Tests;

public class WhatArrivedTests
{
    [Theory]
    [InlineData("GET", true)]
    [InlineData("HEAD", true)]
    [InlineData("POST", false)]
    [InlineData("PUT", false)]
    public async Task Whoever_goes_on_takes_back_a_look_and_no_writing(string method, bool givesUp)
    {
        using var gone = new CancellationTokenSource();
        var context = new DefaultHttpContext { RequestAborted = gone.Token };
        context.Request.Method = method;
        await gone.CancelAsync();
        bool? stopped = null;
        await WhatArrived.CarryThrough(context, there => Task.FromResult(stopped = there.RequestAborted.IsCancellationRequested));
        stopped.ShouldBe(givesUp);
    }
}
